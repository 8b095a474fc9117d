import { matteCoverage } from '@/core/matte/matte-coverage';
import type { FoundPass, Pass } from '@/core/matte/pass';
import { findEdge, followEdge, refineWidth } from '@/core/matte/refine-edge';
import { edgeMargin, softenPart, withMargin, type EdgeWork } from '@/core/matte/soften';
import { bilinearOver } from '@/core/plane/bilinear-over';
import type { GuidedLine } from '@/core/plane/guided-filter';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { Matte, Scene } from '@/core/scene/schema';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import type { Want } from '../graph/stage-spec';
import { brushed, found } from './found';
import { plate } from './plate';
import { survey, surveyIn } from './survey';

/** A matte by its id. */
export interface ById {
  id: string;
}

/** The matte of an id; schemas see to it that it is there. */
export const matteOf = (scene: Scene, id: string): Matte => scene.mattes.find((one) => one.id === id)!;

/** Radius of a feather, fraction of the width, from which it is made on the small copy: nothing finer is left in it. */
const WIDE_FEATHER = 0.01;

const isFound = (pass: Pass): pass is FoundPass =>
  pass.kind === 'area' || pass.kind === 'colour' || pass.kind === 'shadow';

/** Something of every pass that has it, by a name of the pass. */
const ofPasses = <T>(passes: readonly Pass[], of: (pass: Pass) => readonly [string, T] | undefined) =>
  Object.fromEntries(passes.flatMap((pass) => [of(pass)].filter((one) => one !== undefined)));

/** What a matte's passes cover, one after the other. */
export const passes = stage({
  name: 'passes',
  part: 'the mattes',
  settings: ({ scene }, { id }: ById) => matteOf(scene, id).passes,
  inputs(at, { id }) {
    const all = matteOf(at.scene, id).passes;
    return {
      plate: plate(at),
      survey: all.some(({ kind }) => kind === 'sky') ? survey(at) : undefined,
      found: ofPasses(all, (pass) => (isFound(pass) ? [pass.id, found(at, pass)] : undefined)),
      brushed: ofPasses(all, (pass) =>
        pass.kind === 'edge' && pass.asset ? [pass.id, brushed(at, pass.asset)] : undefined,
      ),
      mattes: ofPasses(all, (pass) =>
        pass.kind === 'matte' ? [pass.matte, matte(at, pass.matte)] : undefined,
      ),
    };
  },
  planes: (pixels) => ({ coverage: pixels }),
  pace: 'heavy',
  newest: ({ id }) => id,
  run(out, inputs, { prepared: all }, { region, of, cut }) {
    const { sky } = inputs.survey ? surveyIn(inputs.survey) : {};
    const [size = { width: 0, height: 0 }] = [inputs.survey, ...Object.values(inputs.found)].filter(Boolean);
    const lines = new Map<string, GuidedLine>(Object.entries(inputs.found));
    for (const { id, kind } of all) if (kind === 'sky' && sky) lines.set(id, sky);
    const pictures = Object.entries(inputs.brushed).map(
      ([id, { data, facts }]) => [id, { ...facts, data }] as const,
    );
    const mattes = Object.entries(inputs.mattes).map(([id, { coverage }]) => [id, cut(coverage)] as const);
    const made = { found: { ...size, lines }, brushed: new Map(pictures), mattes: new Map(mattes) };
    matteCoverage(cut(out.coverage), all, of(inputs.plate), made, region);
  },
});

/** The copy of a plate that a matte's edge is refined on. */
function refineRegion({ scene }: Spot, { id }: ById): Region {
  const width = refineWidth(matteOf(scene, id).refine, scene.plate.width);
  return wholeRegion(width, Math.max(1, Math.round((scene.plate.height * width) / scene.plate.width)));
}

/** How a matte's edge follows the plate's, as lines over a copy. */
export const edge = stage({
  name: 'edge',
  part: 'the mattes',
  region: refineRegion,
  settings: ({ scene }, { id }: ById) => matteOf(scene, id).refine,
  inputs: (at, { id }) => ({ plate: plate(at), covered: passes(at, { id }) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels, offset: pixels }),
  pace: 'heavy',
  newest: ({ id }) => id,
  run(out, inputs, { prepared: window }, { rows }) {
    findEdge(out, inputs.plate, inputs.covered.coverage, window, rows);
  },
});

/** A matte's passes with their edge led along the plate's. */
export const refined = stage({
  name: 'refined',
  part: 'the mattes',
  settings: ({ scene }, { id }: ById) => matteOf(scene, id).refine,
  inputs: (at, { id }) => ({ lines: edge(at, { id }), plate: plate(at) }),
  planes: (pixels) => ({ coverage: pixels }),
  pace: 'heavy',
  newest: ({ id }) => id,
  run(out, { lines, plate: guide }, { kernels }, { region, of, cut }) {
    (kernels?.followEdge ?? followEdge)(cut(out.coverage), lines, lines, of(guide), region);
  },
});

const workOn = ({ grow, feather }: Matte, { fullWidth }: Region): EdgeWork => ({
  grow: grow * fullWidth,
  feather: (feather * fullWidth) / 2,
});

/** A matte with its edge moved and softened, and inverted. */
export const softened = stage({
  name: 'softened',
  part: 'the mattes',
  settings({ scene, region }, { id }: ById) {
    const own = matteOf(scene, id);
    return { work: workOn(own, region), invert: own.invert };
  },
  inputs(at, { id }) {
    const own = matteOf(at.scene, id);
    const around = { ...at, region: withMargin(at.region, edgeMargin(workOn(own, at.region))) };
    return { covered: own.refine > 0 ? refined(around, { id }) : passes(around, { id }) };
  },
  planes: (pixels) => ({ coverage: pixels }),
  pace: 'quick',
  newest: ({ id }) => id,
  run(out, { covered }, { prepared: { work, invert } }, { region, cut }) {
    const target = cut(out.coverage);
    softenPart(target, region, covered.coverage, covered.region, work);
    if (invert) for (let i = 0; i < target.length; i++) target[i] = 1 - target[i];
  },
});

/** A matte of a wide feather, from its small copy. */
export const enlarged = stage({
  name: 'enlarged',
  part: 'the mattes',
  settings: () => undefined,
  inputs: (at, { id }: ById) => ({ small: matte(smallOf(at), id) }),
  planes: (pixels) => ({ coverage: pixels }),
  pace: 'quick',
  newest: ({ id }) => id,
  run(out, { small: { width, height, coverage } }, _, { region, cut }) {
    bilinearOver(cut(out.coverage), { width, height, data: coverage }, region);
  },
});

/** Coverage of a region by a finished matte, 0 to 1. */
export function matte(at: Spot, id: string): Want<View<'coverage'>> {
  const small = smallOf(at).region;
  const wide = matteOf(at.scene, id).feather >= WIDE_FEATHER && at.region.fullWidth > small.width;
  return wide ? enlarged(at, { id }) : softened(at, { id });
}
