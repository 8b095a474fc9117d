// Windows in a click and twins on made-up places, against their exact truth.
import { outlineArea } from '@/core/geometry/outline-area';
import type { PlatePoint } from '@/core/geometry/camera';
import { middleOf } from '@/core/plane/middle-of';
import { median } from '@/core/plane/median';
import type { Fixture, Scene } from '@/core/scene/schema';
import type { SegmentService } from '@/segment/segment-service';
import { newCircuit, newFixture } from '@/state/actions/fixture-actions';
import { sampleOf, twinClues, twinsIn } from '@/state/actions/twins';
import { windowClues, windowsIn } from '@/state/actions/windows';
import { placeOf, SHOWS, type Layout } from './layout-files';
import { TRUTH } from './truth-files';

type Outline = readonly PlatePoint[];

/** The size in whose pixels distances are told. */
const PIXELS = { width: 960, height: 640 } as const;

/** What counts: windows and lamps so large, of which so much is seen; shop windows are drawn by hand. */
const COUNTS = { window: 14, lamp: 2.5, seen: 0.6, byHand: 'shop windows' } as const;

/** How near a find's middle is to the one it is of, shares of its sides. */
const NEAR = 0.3;

/** Where in a window one clicks, shares of its sides from its middle. */
const CLICK = { u: 0.1, v: 0.07 } as const;

interface Bounds {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

function boundsOf(outline: Outline): Bounds {
  const [us, vs] = [outline.map(({ u }) => u), outline.map(({ v }) => v)];
  return { left: Math.min(...us), right: Math.max(...us), top: Math.min(...vs), bottom: Math.max(...vs) };
}

/** A place in an outline, by shares along its upper and left sides. */
function placeIn([a, b, c, d]: Outline, s: number, t: number): PlatePoint {
  const mix = (p: PlatePoint, q: PlatePoint, share: number) => ({
    u: p.u + share * (q.u - p.u),
    v: p.v + share * (q.v - p.v),
  });
  return mix(mix(a, b, s), mix(d, c, s), t);
}

/** The glass of an outline as it is seen: a deep reveal may hide part of it. */
function seenGlass(outline: Outline, { ids }: Layout): PlatePoint[] {
  const steps = 60;
  const [s, t]: [number[], number[]] = [[], []];
  for (let k = 0; k <= steps; k++) {
    for (let j = 0; j <= steps; j++) {
      const { u, v } = placeIn(outline, k / steps, j / steps);
      const pixel = Math.floor(v * TRUTH.height) * TRUTH.width + Math.floor(u * TRUTH.width);
      if (ids[pixel] !== SHOWS.pane) continue;
      s.push(k / steps);
      t.push(j / steps);
    }
  }
  const ends = (values: number[]) => {
    const sorted = values.toSorted((p, q) => p - q);
    return [
      sorted[Math.floor(0.005 * sorted.length)] ?? 0,
      sorted[Math.floor(0.995 * (sorted.length - 1))] ?? 1,
    ];
  };
  const [[left, right], [top, bottom]] = [ends(s), ends(t)];
  return [
    placeIn(outline, left, top),
    placeIn(outline, right, top),
    placeIn(outline, right, bottom),
    placeIn(outline, left, bottom),
  ];
}

/** The sets of windows that count, each with the outlines of its members. */
const windowSets = ({ known }: Layout): PlatePoint[][][] =>
  known.alike.windows
    .filter(({ name }) => name !== COUNTS.byHand)
    .map(({ members }) =>
      members
        .map(({ outline, visible_area }) => ({ outline: outline.map(placeOf), visible_area }))
        .filter(({ outline, visible_area }) => {
          const { left, right, top, bottom } = boundsOf(outline);
          const isLarge =
            (right - left) * PIXELS.width >= COUNTS.window && (bottom - top) * PIXELS.height >= COUNTS.window;
          const isWhole = left > 0.005 && right < 0.995 && top > 0.005 && bottom < 0.995;
          return isLarge && isWhole && visible_area > COUNTS.seen * outlineArea(outline);
        })
        .map(({ outline }) => outline),
    );

/**
 * How far the worst corner of each window is off that was found by a click, pixels; NaN where none was told. Also of the best of all
 * that were told there, which take another click each.
 */
export async function windowErrors(
  scene: Scene,
  layout: Layout,
  service: SegmentService,
): Promise<{ first: number; best: number }[]> {
  const errors: { first: number; best: number }[] = [];
  for (const outline of windowSets(layout).flat()) {
    const { left, right, top, bottom } = boundsOf(outline);
    const { u, v } = middleOf(outline);
    const at = { u: u + CLICK.u * (right - left), v: v + CLICK.v * (bottom - top) };
    const found = await service.findWindows(windowClues(scene), at);
    const glass = seenGlass(outline, layout);
    const off = found.map((corners) =>
      Math.max(
        ...corners.map(({ u, v }, i) =>
          Math.hypot((u - glass[i].u) * PIXELS.width, (v - glass[i].v) * PIXELS.height),
        ),
      ),
    );
    errors.push(off.length > 0 ? { first: off[0], best: Math.min(...off) } : { first: NaN, best: NaN });
  }
  return errors;
}

/** Finds against what is there. */
export interface Finds {
  found: number;
  right: number;
  there: number;
  recalled: number;
}

const isNear = (outline: Outline, { u, v }: PlatePoint) => {
  const { left, right, top, bottom } = boundsOf(outline);
  const middle = middleOf(outline);
  return Math.abs(u - middle.u) < NEAR * (right - left) && Math.abs(v - middle.v) < NEAR * (bottom - top);
};

const light = (scene: Scene, kind: Fixture['kind'], at: PlatePoint, path: PlatePoint[]) =>
  newFixture(scene, kind, at, path, newCircuit(scene));

/** Twins of the second largest window of each set, as it is found by a click; what is no window of any set is wrong. */
export async function windowTwinFinds(
  scene: Scene,
  layout: Layout,
  service: SegmentService,
): Promise<Finds[]> {
  const every = layout.known.alike.windows.flatMap(({ members }) =>
    members.map(({ outline }) => outline.map(placeOf)),
  );
  const finds: Finds[] = [];
  for (const set of windowSets(layout).filter(({ length }) => length > 1)) {
    const own = set.toSorted((a, b) => outlineArea(b) - outlineArea(a))[1];
    const [outline] = await service.findWindows(windowClues(scene), middleOf(own));
    if (!outline) continue;
    const lit = light(scene, 'pane', middleOf(outline), outline);
    const alike = await service.windowTwins(windowClues(scene), outline);
    const found = windowsIn({ ...scene, fixtures: [lit] }, lit, alike);
    const rest = set.filter((other) => other !== own);
    finds.push({
      found: found.length,
      right: found.filter(({ at }) => every.some((other) => isNear(other, at))).length,
      there: rest.length,
      recalled: rest.filter((other) => found.some(({ at }) => isNear(other, at))).length,
    });
  }
  return finds;
}

/** Whether a lamp is large enough, and seen enough of, to count. */
export const lampCounts = ({ radius, visible }: { radius: number; visible: number }): boolean =>
  radius * PIXELS.width > COUNTS.lamp && visible > COUNTS.seen;

/** As which kind a known lamp is lit. */
export const kindOfLamp = (kind: string): 'lantern' | 'globe' =>
  ['lantern', 'wall'].includes(kind) ? 'lantern' : 'globe';

/** Twins of the second largest lamp of each set. */
export async function lampTwinFinds(scene: Scene, layout: Layout, service: SegmentService): Promise<Finds[]> {
  const finds: Finds[] = [];
  for (const { kind, members } of layout.known.alike.lamps) {
    const seen = members.filter(lampCounts).sort((a, b) => b.radius - a.radius);
    if (seen.length < 2) continue;
    const [, own] = seen;
    const made = light(scene, kindOfLamp(kind), placeOf(own.centre), []);
    const lit = { ...made, size: own.radius, foot: placeOf(own.foot) };
    const found = twinsIn(
      { ...scene, fixtures: [lit] },
      lit,
      await service.findAlike(sampleOf(scene, lit), twinClues(scene, lit)),
    );
    const isOf = ({ centre, radius }: (typeof members)[number], { u, v }: PlatePoint) =>
      Math.hypot(u - centre[0], ((v - centre[1]) * PIXELS.height) / PIXELS.width) < Math.max(radius, 0.003);
    const rest = seen.filter((other) => other !== own);
    finds.push({
      found: found.length,
      right: found.filter(({ at }) => members.some((other) => isOf(other, at))).length,
      there: rest.length,
      recalled: rest.filter((other) => found.some(({ at }) => isOf(other, at))).length,
    });
  }
  return finds;
}

/** Of all finds, how many are right; and of what is there, how much is found, as the mean over sets. */
export function sumOfFinds(finds: readonly Finds[]): { precision: number; recall: number } {
  const sum = (of: (finds: Finds) => number) => finds.reduce((all, one) => all + of(one), 0);
  return {
    precision: sum(({ right }) => right) / sum(({ found }) => found),
    recall: sum(({ recalled, there }) => recalled / there) / finds.length,
  };
}

/** Share of windows whose worst corner is within some pixels, and the median of those that are told. */
export function windowShares(errors: readonly number[]): {
  told: number;
  within3: number;
  within5: number;
  median: number;
} {
  const within = (pixels: number) => errors.filter((off) => off <= pixels).length / errors.length;
  const told = errors.filter((off) => !Number.isNaN(off));
  return { told: told.length / errors.length, within3: within(3), within5: within(5), median: median(told) };
}
