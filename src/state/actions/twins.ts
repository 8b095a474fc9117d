import { paneGrid } from '@/core/fixture/pane-grid';
import { KINDS } from '@/core/fixture/kinds';
import { rowOf, twinAt, type CopyPlace } from '@/core/fixture/copies';
import { twinFit, type TwinClues } from '@/core/fixture/twin-fit';
import { twinsOf, type Alike } from '@/core/fixture/twins';
import { wallPieces } from '@/core/plan/wall-pieces';
import { cameraOf } from '@/core/picture/camera-of';
import type { PlatePoint } from '@/core/geometry/camera';
import { unlike } from '@/core/fixture/make-fixture';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { MOST_FIXTURES, type Fixture, type Scene } from '@/core/scene/schema';
import type { Sample } from '@/segment/find-alike';
import { footOfTwin } from './windows';
import { middleOfPath } from './fixture-actions';
import { freeName, stemOf } from './free-name';

/** How far around a lamp's glass its looks count, glass radii each way: with its cap and a little of what is around. */
const AROUND = { across: 1.9, down: 2.4 } as const;

/** How far around a pane its frame counts, shares of its own half sides. */
const FRAME = 1.12;

/** The part of the plate by which a fixture's twins are told. */
export function sampleOf({ plate }: Pick<Scene, 'plate'>, { at, size, path, kind }: Fixture): Sample {
  const aspect = plate.width / plate.height;
  if (path.length === 0) {
    const glass = KINDS[kind].twins.byGlass ? { u: size, v: size * aspect } : undefined;
    return { at, half: { u: AROUND.across * size, v: AROUND.down * size * aspect }, glass };
  }
  const half = (values: number[]) => (FRAME * (Math.max(...values) - Math.min(...values))) / 2;
  return { at, half: { u: half(path.map(({ u }) => u)), v: half(path.map(({ v }) => v)) } };
}

/** What the ground plan says of a fixture's twins; undefined of kinds that come in any size. */
export function twinClues(scene: Scene, fixture: Fixture): TwinClues | undefined {
  if (!KINDS[fixture.kind].twins.bySize) return undefined;
  const camera = cameraOf(scene);
  return { camera, walls: wallPieces(camera, scene.plan.walls), fixture };
}

/** The twins of a fixture among what looks like it, leaving out what burns. */
export function twinsIn(scene: Scene, fixture: Fixture, alike: readonly Alike[]): Alike[] {
  const { half } = sampleOf(scene, fixture);
  const aspect = scene.plate.width / scene.plate.height;
  const radius = Math.min(half.u, half.v / aspect) / (fixture.path.length === 0 ? AROUND.across : 1.6);
  const room = MOST_FIXTURES - scene.fixtures.length;
  const clues = twinClues(scene, fixture);
  const fits = clues ? twinFit(clues) : () => true;
  return twinsOf(fits, fixture, alike, scene.fixtures, radius, aspect).slice(0, room);
}

/** Copies of a fixture with all its settings, at places of their own. */
function copiesOf(scene: Scene, fixture: Fixture, places: readonly CopyPlace[]): Fixture[] {
  const taken = [...scene.fixtures];
  const stem = stemOf(fixture);
  return places.map((place) => {
    const copy = unlike(
      {
        ...structuredClone(fixture),
        ...place,
        on: undefined,
        size: clampTo(place.size, RANGES.size),
        id: crypto.randomUUID(),
        name: freeName(stem, taken),
      },
      taken,
    );
    taken.push(copy);
    return copy;
  });
}

export const twinCopies = (scene: Scene, fixture: Fixture, twins: readonly Alike[]): Fixture[] =>
  copiesOf(
    scene,
    fixture,
    twins.map(({ at, times, path }) => {
      const place = twinAt(cameraOf(scene), fixture, at, times);
      if (!path) return place;
      const foot = footOfTwin(scene, fixture, at);
      return { ...place, path, foot, aim: foot };
    }),
  );

/** Copies in a row from a fixture's foot to a place of the ground. */
export const rowCopies = (scene: Scene, fixture: Fixture, end: PlatePoint, count: number): Fixture[] =>
  copiesOf(
    scene,
    fixture,
    rowOf(cameraOf(scene), fixture, end, Math.min(count, MOST_FIXTURES - scene.fixtures.length)),
  );

/** A copy a little aside. */
export function besideCopy(scene: Scene, fixture: Fixture): Fixture[] {
  const by = Math.max(0.02, 3 * fixture.size);
  const aside = ({ u, v }: PlatePoint) => ({ u: u + by, v });
  const { at, foot, aim, size, path } = fixture;
  const place = { at: aside(at), foot: aside(foot), aim: aside(aim), size, path: path.map(aside) };
  return copiesOf(scene, fixture, [place]);
}

/** A pane parted into a grid of panes in its perspective, each with its share of the light. */
export function gridOf(
  scene: Scene,
  fixture: Fixture,
  columns: number,
  rows: number,
  gap: number,
): Fixture[] {
  const { foot, aim, size } = fixture;
  const others = scene.fixtures.filter(({ id }) => id !== fixture.id);
  const places = paneGrid(fixture.path, columns, rows, gap).map((path) => ({
    ...{ path, at: middleOfPath(path), foot, aim, size },
  }));
  const lumens = Math.max(RANGES.lumens.min, fixture.lumens / places.length);
  return copiesOf({ ...scene, fixtures: others }, { ...fixture, lumens }, places);
}
