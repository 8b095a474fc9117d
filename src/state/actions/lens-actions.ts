import { isUp } from '@/core/fields/fader-gain';
import { RANGES } from '@/core/fields/ranges';
import type { PlatePoint } from '@/core/geometry/camera';
import type { Glint } from '@/core/lens/glint';
import { apart, GOVERNS } from '@/core/lens/governed-glints';
import type { LensPoint } from '@/core/lens/lens-schema';
import { sayOfGlints, unsayOfGlints } from '@/core/scene/lens-commands';
import type { Command } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';

/** A source as it is marked in the picture: one that has spikes, or one whose spikes were taken away. */
export interface GlintMark {
  at: PlatePoint;
  isOn: boolean;
  from: Glint['from'];
  /** What was said of it. */
  point?: LensPoint;
}

const isOff = ({ stops }: LensPoint) => !isUp(stops);
const aspectOf = ({ plate }: Pick<Scene, 'plate'>) => plate.width / plate.height;

/** What is said nearest to a place, near enough to count for it. */
function nearestPoint(points: readonly LensPoint[], at: PlatePoint, aspect: number): LensPoint | undefined {
  const near = points.filter((point) => apart(point.at, at, aspect) < GOVERNS);
  return near.sort((a, b) => apart(a.at, at, aspect) - apart(b.at, at, aspect))[0];
}

/** All sources of a scene as they are marked. @param glints those that have spikes */
export function glintMarks(
  { lens, plate }: Pick<Scene, 'lens' | 'plate'>,
  glints: readonly Glint[],
): GlintMark[] {
  const on = lens.points.filter((point) => !isOff(point));
  const shining = glints.map(({ u, v, from }) => {
    const at = { u, v };
    return { at, isOn: true, from, point: nearestPoint(on, at, aspectOf({ plate })) };
  });
  const taken = lens.points
    .filter(isOff)
    .map((point) => ({ at: point.at, isOn: false, from: 'found' as const, point }));
  return [...shining, ...taken];
}

const saying = (at: PlatePoint, stops: number, id: string = crypto.randomUUID()): LensPoint => ({
  id,
  at: { u: at.u, v: at.v },
  stops,
});

/** Takes the spikes of sources away; what was only said to be one is let go of. */
export function takeGlints(marks: readonly GlintMark[]): Command {
  const on = marks.filter(({ isOn }) => isOn);
  const said = on.filter(({ from }) => from === 'said').flatMap(({ point }) => (point ? [point.id] : []));
  const off = on
    .filter(({ from }) => from !== 'said')
    .map(({ at, point }) => saying(at, RANGES.level.min, point?.id));
  const label =
    on.length === 1 ? 'Take a source’s spikes away' : `Take the spikes of ${on.length} sources away`;
  return both(label, said, off);
}

/** Gives sources their spikes again. */
export const giveGlints = (marks: readonly GlintMark[]): Command =>
  unsayOfGlints(
    'Give spikes again',
    marks.flatMap(({ isOn, point }) => (isOn || !point ? [] : [point.id])),
  );

/** Makes a place a source. */
export const addGlint = (at: PlatePoint): Command => addGlints([at]);

/** Makes places sources, as a stroke over bright things does. */
export const addGlints = (places: readonly PlatePoint[]): Command =>
  sayOfGlints(
    places.length === 1 ? 'Add a source' : `Add ${places.length} sources`,
    places.map((at) => saying(at, 0)),
  );

/** How strong the spikes of sources are against what they would be. */
export const strengthenGlints = (marks: readonly GlintMark[], stops: number): Command =>
  sayOfGlints(
    marks.length === 1 ? 'Spikes of one source' : `Spikes of ${marks.length} sources`,
    marks.map(({ at, point }) => saying(at, stops, point?.id)),
  );

/** Parts a source in two, one of which stays where it was; one that was parted already moves. */
export const partGlint = ({ at, point }: GlintMark, ids: [string, string], to: PlatePoint): Command =>
  point
    ? sayOfGlints('Move a source', [{ ...point, at: to }])
    : sayOfGlints('Part a source in two', [saying(at, 0, ids[0]), saying(to, 0, ids[1])]);

/** Lets go of what was said, and says something else, as one change. */
const both = (label: string, ids: readonly string[], points: readonly LensPoint[]): Command => ({
  label,
  apply(scene) {
    unsayOfGlints(label, ids).apply(scene);
    sayOfGlints(label, points).apply(scene);
  },
});
