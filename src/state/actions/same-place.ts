import { createPlaceMap } from '@/core/geometry/place-map';
import type { EdgePass, Pass } from '@/core/matte/pass';
import { mapPlaces } from '@/core/scene/map-places';
import { checkedScene } from '@/core/scene/parse-scene';
import type { Matte, Scene } from '@/core/scene/schema';
import type { Segmenter } from '@/state/work/segmenter';

/** What finds places and edges in the plate of the scene that is open. */
type Finder = Pick<Segmenter, 'samePlace' | 'brush'>;

/** Two photos do not surely show the same place. */
export class OtherPlaceError extends Error {
  override name = 'OtherPlaceError';
}

/**
 * All that another scene is, where the plate that is open shows the same places: edges that its brushes found are looked for
 * again on this one. Rejects with OtherPlaceError where the two photos have too little in common.
 */
export async function sceneOfSamePlace(otherId: string, other: Scene, finder: Finder): Promise<Scene> {
  const match = await finder.samePlace(otherId, other.plate);
  if (!match) {
    throw new OtherPlaceError(
      'Too little of this photo is alike the other one. If it is another place, set the lamps one by one below.',
    );
  }
  const moved = mapPlaces(other, createPlaceMap(match.flat, match.known));
  const mattes: Matte[] = [];
  for (const matte of moved.mattes) mattes.push({ ...matte, passes: await foundAgain(matte.passes, finder) });
  return checkedScene({ ...moved, mattes });
}

/** Passes whose edge brushes have found what they find on this plate. */
async function foundAgain(passes: readonly Pass[], { brush }: Finder): Promise<Pass[]> {
  const found: Pass[] = [];
  for (const pass of passes)
    found.push(isEdge(pass) ? { ...pass, asset: await brush(undefined, pass.strokes) } : pass);
  return found;
}

const isEdge = (pass: Pass): pass is EdgePass => pass.kind === 'edge' && pass.strokes.length > 0;
