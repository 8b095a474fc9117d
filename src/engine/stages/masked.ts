import { addMasked } from '@/core/plane/blend';
import type { Fixture } from '@/core/scene/schema';
import type { Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { Want } from '../graph/stage-spec';
import { unionRows } from '../union-rows';
import { lightPlanes, type Lamps } from './direct';
import { commonRows, lamps, rowsIn, unmasked, type LayerFacts, type LayerView } from './lamps';
import { matte } from './matte';

/** What holds a fixture's light back; empty where nothing does. */
const maskOf = ({ behind, only }: Fixture) =>
  behind === undefined && !only ? '' : `${behind ?? ''} ${only?.matte ?? ''} ${only?.outside ?? ''}`;

/** Fixtures by what holds them back. */
function groupsOf(fixtures: Fixture[]): Fixture[][] {
  const groups = new Map<string, Fixture[]>();
  for (const fixture of fixtures) {
    const name = maskOf(fixture);
    groups.set(name, [...(groups.get(name) ?? []), fixture]);
  }
  return [...groups.values()];
}

/** The light of lamps that mattes hold back: where something stands before them, and where alone their spill lands. */
export const masked = stage({
  name: 'masked',
  part: 'the light of the fixtures',
  settings: ({ scene: { plan } }, { fixtures }: Lamps) => ({
    plan,
    outside: groupsOf(fixtures).map(([{ only }]) => only?.outside),
  }),
  inputs: (at, { fixtures }) => ({
    parts: groupsOf(fixtures).map((group) => ({
      layer: lamps(at, { fixtures: group.map(unmasked) }),
      behind: group[0].behind === undefined ? undefined : matte(at, group[0].behind),
      only: group[0].only && matte(at, group[0].only.matte),
    })),
  }),
  prepare: ({ settings, inputs: { parts }, region }) => ({
    ...settings,
    width: region.width,
    sourceRows: unionRows(parts.map(({ layer }) => layer.facts.sourceRows)),
  }),
  facts: ({ sourceRows }): LayerFacts => ({ sourceRows }),
  planes: (pixels, { plan, sourceRows: { from, to }, width }) => ({
    ...lightPlanes(pixels, plan),
    source: width * (to - from),
  }),
  pace: 'quick',
  run(out, { parts }, { prepared: { outside }, kernels }, { rows, of, cut }) {
    const { spill, air, shine } = of(out);
    const { sourceRows } = out.facts;
    for (const plane of [spill, air, shine]) plane.fill(0);
    rowsIn(out.source, out, sourceRows, commonRows(rows, sourceRows)).fill(0);
    parts.forEach(({ layer, behind, only }, k) => {
      const share = only && cut(only.coverage);
      addMasked(spill, cut(layer.spill), share, outside[k], kernels);
      if (shine.length > 0) addMasked(shine, cut(layer.shine), share, outside[k], kernels);
      addMasked(air, cut(layer.air), behind && cut(behind.coverage), true, kernels);
      const own = layer.facts.sourceRows;
      const both = commonRows(rows, own);
      const before = behind && rowsIn(behind.coverage, out, { from: 0, to: out.height }, both);
      const source = rowsIn(out.source, out, sourceRows, both);
      addMasked(source, rowsIn(layer.source, out, own, both), before, true, kernels);
    });
  },
});

/** The light of lamps, held back or not. */
export const lampLight = (at: Spot, all: Lamps): Want<LayerView> =>
  all.fixtures.some((fixture) => maskOf(fixture) !== '') ? masked(at, all) : lamps(at, all);
