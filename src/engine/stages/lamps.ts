import { addVisibleSource, sourceBounds } from '@/core/fixture/shapes';
import { visibleSources } from '@/core/fixture/visible-source';
import { addEnlarged } from '@/core/plane/add-enlarged';
import { regionKey, rowsOf, type Region } from '@/core/plane/region';
import type { Fixture } from '@/core/scene/schema';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { Rows } from '../graph/task';
import type { View } from '../graph/view';
import type { Want, Wants } from '../graph/stage-spec';
import { rowsTouched, unionRows } from '../union-rows';
import { bounce } from './bounce';
import { direct, lampSettings, lightPlanes, throwLight, throwOf, type Lamps, type LightView } from './direct';
import { seenPlate } from './placed';
import { relief } from './relief';
import { shadesAt } from './shades';

/** The light of a layer; of the lamps themselves only the rows are there that any reaches. */
export type LayerView = View<'spill' | 'air' | 'shine' | 'source', LayerFacts>;

export interface LayerFacts {
  sourceRows: Rows;
}

/** A fixture that nothing holds back. */
export const unmasked = (fixture: Fixture): Fixture => ({ ...fixture, behind: undefined, only: undefined });

/**
 * What the light of lamps begins with, and whose is added to it. While a lamp is dragged the light of the others is kept apart, so that it
 * alone is computed anew, and drawn over them as they are seen. On the small copy all of it is there already, as surfaces give on from it.
 */
function partsOf(at: Spot, all: Lamps): { base?: Want<LightView>; seen?: Want<LayerView>; fresh: Lamps } {
  const { moving } = at;
  const still = all.fixtures.filter(({ id }) => id !== moving?.id);
  if (still.length > 0 && still.length < all.fixtures.length) {
    const fresh = all.fixtures.filter(({ id }) => id === moving?.id);
    const base = lamps({ ...at, moving: undefined }, { fixtures: still });
    return { base, seen: base, fresh: { fixtures: fresh } };
  }
  const isSmall = regionKey(at.region) === regionKey(smallOf(at).region);
  if (!isSmall || moving || all.fixtures.length === 0) return { fresh: all };
  return { base: direct(at, all), fresh: { fixtures: [] } };
}

/** Fixtures, with one that is dragged where it was taken up: what surfaces give on of its light follows when it is let go. */
export const resting = ({ moving }: Spot, fixtures: Fixture[]) =>
  fixtures.map((fixture) => (moving && fixture.id === moving.id ? unmasked(moving) : fixture));

/** The light of lamps that nothing holds back. */
export const lamps = stage({
  name: 'lamps',
  part: 'the light of the fixtures',
  settings(at, all: Lamps) {
    const { fresh, seen } = partsOf(at, all);
    const { fixtures, moon } = lampSettings(at, fresh);
    const settings = lampSettings(at, all);
    return { ...settings, fresh: { fixtures, moon }, drawn: seen ? fixtures : settings.fixtures };
  },
  inputs(at, all): LampInputs {
    const { base, seen, fresh } = partsOf(at, all);
    // Of a lamp that is dragged alone, or of all.
    const given = fresh.fixtures.length > 0 ? fresh.fixtures : all.fixtures;
    return {
      ...{
        relief: relief(at),
        plate: seenPlate(at),
        small: seenPlate(smallOf(at)),
        shades: shadesAt(at),
        ...{ base, seen },
      },
      bounce:
        given.length > 0 ? bounce({ ...at, moving: undefined }, { fixtures: resting(at, given) }) : undefined,
    };
  },
  prepare({ settings, inputs, region }) {
    const { drawn, fresh, plan } = settings;
    const thrown = throwOf(settings, fresh.fixtures, inputs.small, fresh.moon);
    const sources = drawn.flatMap((fixture) =>
      visibleSources(thrown.camera, thrown.cast.walls, fixture, inputs.small),
    );
    const touched = sources.map((source) => rowsTouched(sourceBounds(source, region), region));
    const sourceRows = unionRows([...touched, ...(inputs.seen ? [inputs.seen.facts.sourceRows] : [])]);
    return { ...thrown, plan, sources, sourceRows, width: region.width };
  },
  facts: ({ sourceRows }): LayerFacts => ({ sourceRows }),
  planes: (pixels, { plan, sourceRows: { from, to }, width }) => ({
    ...lightPlanes(pixels, plan),
    source: width * (to - from),
  }),
  pace: 'heavy',
  newest({ moon, fixtures }, { moving }) {
    if (moon) return 'moon';
    return fixtures.some(({ id }) => id === moving?.id) ? 'dragged' : undefined;
  },
  run(out, inputs, { prepared, kernels }, band) {
    begin(band.of(out), inputs.base && band.of(inputs.base));
    throwLight(out, inputs.relief, prepared, inputs.shades, band, kernels);
    if (inputs.bounce) {
      // Surfaces give on to land alone.
      const { width, height, spill: data } = inputs.bounce;
      const add = kernels?.addEnlarged ?? addEnlarged;
      add(band.cut(out.spill), { width, height, data }, band.cut(inputs.relief.land), band.region);
    }
    const rows = commonRows(band.rows, out.facts.sourceRows);
    const part = rowsOf(out.region, rows.from, rows.to - rows.from);
    const source = rowsIn(out.source, out, out.facts.sourceRows, rows).fill(0);
    if (inputs.seen) copyRows(out, inputs.seen, rows);
    const { plate: day, relief: lie } = inputs;
    const [r, g, b, land, reach] = [day.r, day.g, day.b, lie.land, lie.reach].map((plane) =>
      rowsIn(plane, out, { from: 0, to: out.height }, rows),
    );
    const beneath = { width: part.width, height: part.height, r, g, b, land, reach };
    if (source.length > 0) for (const seen of prepared.sources) addVisibleSource(source, part, seen, beneath);
  },
});

/** Begins some rows of what is seen of lamps with others that are seen. */
function copyRows(out: LayerView, seen: LayerView, rows: Rows): void {
  const common = commonRows(rows, seen.facts.sourceRows);
  const from = rowsIn(seen.source, seen, seen.facts.sourceRows, common);
  rowsIn(out.source, out, out.facts.sourceRows, common).set(from);
}

interface LampInputs extends Record<string, Wants> {
  relief: ReturnType<typeof relief>;
  plate: ReturnType<typeof seenPlate>;
  small: ReturnType<typeof seenPlate>;
  shades: ReturnType<typeof shadesAt>;
  base?: Want<LightView>;
  seen?: Want<LayerView>;
  bounce?: ReturnType<typeof bounce>;
}

/** The rows of both. */
export const commonRows = (a: Rows, b: Rows): Rows => {
  const from = Math.max(a.from, b.from);
  return { from, to: Math.max(from, Math.min(a.to, b.to)) };
};

/** Some rows of a plane that holds the rows `its` of a region. */
export const rowsIn = (plane: Float32Array, { width }: Pick<Region, 'width'>, its: Rows, rows: Rows) =>
  rows.from < rows.to
    ? plane.subarray((rows.from - its.from) * width, (rows.to - its.from) * width)
    : plane.subarray(0, 0);

function begin(out: LightView, base?: LightView): void {
  for (const name of ['spill', 'air', 'shine'] as const) {
    if (base) out[name].set(base[name]);
    else out[name].fill(0);
  }
}
