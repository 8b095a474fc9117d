import { cameraOf } from '@/core/picture/camera-of';
import { reliefOf } from '@/core/relief/relief';
import { RELIEF_PLANES } from '@/core/relief/relief-planes';
import { creaseTilts, roundTilts } from '@/core/relief/standee-form';
import { hasWater } from '@/core/survey/said';
import { boxPiece } from '@/core/plan/box-piece';
import { deckRisers } from '@/core/plan/deck-risers';
import { glossFrame } from '@/core/plan/gloss-frame';
import { standsAhead } from '@/core/plan/surfaces';
import { wallPieces } from '@/core/plan/wall-pieces';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { GroundPlan } from '@/core/scene/schema';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import { creaseSize } from '../sizes';
import { landOf } from './land';
import { matte, type ById } from './matte';
import { landCover, seenPlate, standing } from './placed';
import { plate } from './plate';
import { hasSky, tones } from './skyline';
import { survey, surveyIn } from './survey';

/** How a standee bulges, found on the small copy. */
export const round = stage({
  name: 'round',
  part: 'the ground plan',
  region: (at) => smallOf(at).region,
  settings: () => undefined,
  inputs: (at, { id }: ById) => ({ matte: standing(at, id) }),
  planes: (pixels) => ({ right: pixels, up: pixels }),
  pace: 'heavy',
  whole: true,
  lasting: true,
  run(out, { matte: { coverage, width, height } }) {
    const { right, up } = roundTilts(coverage, width, height);
    out.right.set(right);
    out.up.set(up);
  },
});

/** The copy of a plate on which folds are looked for. */
export function creaseRegion({ scene }: Spot): Region {
  const { width, height } = creaseSize(scene.plate);
  return wholeRegion(width, height);
}

/** Folds by the plate's fine shading, found on one copy for every size of picture. */
export const crease = stage({
  name: 'crease',
  part: 'the ground plan',
  region: creaseRegion,
  settings: () => undefined,
  inputs: (at) => ({ plate: seenPlate(at) }),
  planes: (pixels) => ({ right: pixels, up: pixels }),
  pace: 'heavy',
  whole: true,
  lasting: true,
  run(out, inputs) {
    const { right, up } = creaseTilts(inputs.plate);
    out.right.set(right);
    out.up.set(up);
  },
});

/** The mattes at which walls end. */
export const endsOfWalls = ({ walls }: GroundPlan): string[] => walls.flatMap(({ until }) => until ?? []);

/** Something of each of some mattes, once, by its id. */
export const ofEach = <T>(mattes: readonly string[], of: (matte: string) => T): Record<string, T> =>
  Object.fromEntries([...new Set(mattes)].map((id) => [id, of(id)]));

/** Whether the plate's shading folds any surface. */
const isFolded = ({ ground, walls, decks, standees, strokes }: GroundPlan) =>
  hasWater(strokes) || [ground, ...walls, ...decks, ...standees].some((surface) => surface.crease > 0);

/** Lengths of a relief's planes. */
export const reliefPlanes = (pixels: number) =>
  Object.fromEntries(RELIEF_PLANES.map((name) => [name, pixels])) as Record<
    (typeof RELIEF_PLANES)[number],
    number
  >;

/** The lie of the land of a region. */
export const relief = stage({
  name: 'relief',
  part: 'the ground plan',
  settings: (at) => ({ ...landOf(at), drawn: at.scene.plan.standees.length }),
  inputs(at) {
    const { plan } = landOf(at);
    const { wet } = plan.ground;
    return {
      plate: plate(at),
      survey: survey(at),
      standees: plan.standees.map(({ matte: id, roundness, box }) => ({
        matte: standing(at, id),
        round: roundness > 0 && !box ? round(at, { id }) : undefined,
      })),
      glosses: plan.glosses.map(({ matte: id, roundness }) => ({
        matte: matte(at, id),
        round: roundness > 0 ? round(at, { id }) : undefined,
      })),
      ends: ofEach(endsOfWalls(plan), (id) => matte(at, id)),
      wet: wet === undefined ? undefined : matte(at, wet),
      skyline: hasSky(at) ? landCover(at) : undefined,
      tones: hasSky(at) ? tones(smallOf(at)) : undefined,
      folds: isFolded(plan) ? crease(at) : undefined,
    };
  },
  prepare({ settings }) {
    const camera = cameraOf(settings);
    const { walls, standees, decks, glosses } = settings.plan;
    return {
      ...{ plan: settings.plan, camera },
      walls: [...wallPieces(camera, walls), ...deckRisers(camera, decks)],
      ahead: standees.map((standee) => standsAhead(camera, standee, decks)),
      boxes: standees.map((standee) => boxPiece(camera, standee, decks)),
      glosses: glosses.map((gloss) => ({ ...gloss, frame: glossFrame(gloss) })),
      isLand: settings.plan.standees.map((_, k) => k >= settings.drawn),
    };
  },
  planes: reliefPlanes,
  pace: 'heavy',
  run(out, inputs, { prepared, kernels }, { region, of, cut }) {
    const { plan, camera, walls, ahead, boxes, isLand } = prepared;
    const standees = plan.standees.map((standee, k) => ({
      ...standee,
      creased: standee.crease,
      isLand: isLand[k],
      ahead: ahead[k],
      piece: boxes[k],
      coverage: cut(inputs.standees[k].matte.coverage),
      round: inputs.standees[k].round,
    }));
    const told = surveyIn(inputs.survey);
    // Beyond the skyline that the survey found, land stands where the land beside it does.
    const seen = inputs.tones ? { ...told, feet: inputs.tones.feet } : told;
    const surfaces = {
      ...{ ground: plan.ground, walls, decks: plan.decks, standees, folds: inputs.folds },
      glosses: prepared.glosses.map((gloss, k) => ({
        ...gloss,
        coverage: cut(inputs.glosses[k].matte.coverage),
        round: inputs.glosses[k].round,
      })),
      wet: inputs.wet && cut(inputs.wet.coverage),
      skyline: inputs.skyline && cut(inputs.skyline.land),
      ends: Object.fromEntries(
        Object.entries(inputs.ends).map(([id, { coverage }]) => [id, cut(coverage)] as const),
      ),
    };
    reliefOf(of(out), of(inputs.plate), seen, camera, region, surfaces, kernels);
  },
});
