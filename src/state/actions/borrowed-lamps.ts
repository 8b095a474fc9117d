import { kindOf } from '@/core/fixture/kinds';
import { isList } from '@/core/fixture/own-settings';
import { withValues } from '@/core/fixture/make-fixture';
import { placeFixture } from '@/core/fixture/place-fixture';
import { metresPerWidth, placeOnStalk } from '@/core/geometry/place-on-stalk';
import type { PlatePoint } from '@/core/geometry/camera';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { cameraOf } from '@/core/picture/camera-of';
import type { Circuit, Fixture, FixtureValues, Scene } from '@/core/scene/schema';
import { newFixture } from './fixture-actions';
import { freeName, stemOf } from './free-name';

/** A lamp of another scene that waits for its place in this one. */
export interface BorrowedLamp {
  fixture: Fixture;
  circuit: Circuit;
  /** Of its glass, metres. */
  radius: number;
}

/** The lamps of a scene, circuit by circuit. */
export function lampsOf(source: Scene): BorrowedLamp[] {
  const camera = cameraOf(source);
  return source.circuits.flatMap((circuit) =>
    source.fixtures
      .filter((fixture) => fixture.circuit === circuit.id)
      .map((fixture) => ({ fixture, circuit, radius: placeFixture(camera, fixture).radius })),
  );
}

/** Whether a lamp has its place in a scene: one of its kind has its name. */
export const isSet = ({ fixtures }: Scene, { fixture: { name, kind } }: BorrowedLamp): boolean =>
  fixtures.some((own) => own.name === name && own.kind === kind);

/** The first lamp behind one in a list that has no place yet; from the beginning where there is none. */
export function nextUnset(
  scene: Scene,
  lamps: readonly BorrowedLamp[],
  after?: string,
): BorrowedLamp | undefined {
  const from = lamps.findIndex(({ fixture }) => fixture.id === after) + 1;
  return [...lamps.slice(from), ...lamps.slice(0, from)].find((lamp) => !isSet(scene, lamp));
}

/** Values without lists: those name places of a path that is drawn anew. */
function withoutLists(values: FixtureValues, { kind }: Fixture): FixtureValues {
  const { own } = kindOf({ kind });
  return Object.fromEntries(Object.entries(values).filter(([name]) => !(name in own && isList(own[name]))));
}

/**
 * A borrowed lamp lit at a place: its power, gel and settings, its glass as large as it was, on the circuit of the same name.
 *
 * @param more what the gesture found out, such as a foot or the tones of a sign; it counts for all but the power
 */
export function setBorrowed(
  scene: Scene,
  { fixture: of, circuit: from, radius }: BorrowedLamp,
  at: PlatePoint,
  path: PlatePoint[],
  more: FixtureValues,
): { fixture: Fixture; circuit: Circuit } {
  const own = scene.circuits.find(({ name }) => name === from.name);
  const circuit = own ?? { ...from, id: crypto.randomUUID() };
  const begun = withValues(newFixture(scene, of.kind, at, path, circuit), more);
  const perWidth = metresPerWidth(
    cameraOf(scene),
    begun.at,
    placeOnStalk(cameraOf(scene), begun.at, begun.foot),
  );
  const { id: _id, circuit: _circuit, at: _at, foot: _foot, aim: _aim, path: _path, ...rest } = of;
  const { behind: _behind, only: _only, on: _on, bulb: _bulb, ...values } = rest;
  const isTaken = scene.fixtures.some(({ name }) => name === of.name);
  const fixture = withValues(begun, {
    ...withoutLists(values, of),
    ...more,
    lumens: of.lumens,
    size: more.size ?? clampTo(radius / perWidth, RANGES.size),
    name: isTaken ? freeName(stemOf(of), scene.fixtures) : of.name,
  });
  return { fixture, circuit };
}
