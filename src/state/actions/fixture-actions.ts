import { kelvinGel } from '@/core/fixture/kelvin-gel';
import { KINDS, kindOf, type AnyKind, type KindName } from '@/core/fixture/kinds';
import { makeFixture, unlike } from '@/core/fixture/make-fixture';
import { placeFixture } from '@/core/fixture/place-fixture';
import { boundPlace } from '@/core/geometry/bound-place';
import { metresPerWidth, placeOnStalk, footForHeight } from '@/core/geometry/place-on-stalk';
import { project, type Camera, type PlatePoint } from '@/core/geometry/camera';
import { groundPoint } from '@/core/geometry/ground';
import { wallPieces } from '@/core/plan/wall-pieces';
import { rectangleBetween, wallAt } from '@/core/plan/wall-at';
import { simplifyPath } from '@/core/geometry/simplify-path';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { MOST_POINTS } from '@/core/fixture/fixture-base';
import type { HungLamp, UsualLamp } from '@/core/layout/hang-lamp';
import type { Circuit, Fixture, FixtureValues, Scene } from '@/core/scene/schema';
import { plainCircuit } from '@/core/scene/new-scene';
import { cameraOf } from '@/core/picture/camera-of';
import { freeName } from './free-name';
import { placedUnder } from './placed-actions';

/** A circuit with everything at its middle. */
export const newCircuit = (scene: Scene): Circuit =>
  plainCircuit(crypto.randomUUID(), freeName('Circuit', scene.circuits));

/** The circuit that a new fixture goes on: its kind's own, or the one that was worked on last. It may not be in the scene yet. */
export function circuitFor(scene: Scene, kind: KindName, last?: string): Circuit {
  const { ownCircuit } = kindOf({ kind });
  if (ownCircuit !== undefined)
    return (
      scene.circuits.find(({ name }) => name === ownCircuit) ?? plainCircuit(crypto.randomUUID(), ownCircuit)
    );
  return scene.circuits.find(({ id }) => id === last) ?? scene.circuits.at(-1) ?? newCircuit(scene);
}

/** How far before a wall a lamp hangs that would else be behind it, metres: on an arm. */
const ARM = 0.45;

/**
 * Where a new fixture stands: what is drawn, under the wall on which it is seen; a lamp where its stalk has its kind's usual
 * height, but never behind a wall that is seen there.
 */
function footOf(scene: Scene, kind: AnyKind, at: PlatePoint): PlatePoint {
  const camera = cameraOf(scene);
  const byHeight = footForHeight(camera, at, kind.defaults.height);
  const hit = wallAt(camera, wallPieces(camera, scene.plan.walls), at);
  if (!hit) return byHeight;
  const { place, piece } = hit;
  const off = kind.drawn ? 0 : ARM;
  const [x, y] = [place[0] + off * piece.normalX, place[1] + off * piece.normalY];
  if (!kind.drawn && groundPoint(camera, byHeight)[1] < y) return byHeight;
  return boundPlace(project(camera, [x, y, 0]) ?? byHeight);
}

/**
 * A fixture lit in the picture: the real thing's power and size. A kind that is drawn comes with its path; it hangs on the
 * wall that is seen there, the others on a stalk of their usual height.
 */
export function newFixture(
  scene: Scene,
  kind: KindName,
  at: PlatePoint,
  path: PlatePoint[],
  circuit: Circuit,
): Fixture {
  const own = kindOf({ kind });
  const camera = cameraOf(scene);
  const carrier = placedUnder(scene, at);
  const foot = carrier?.foot ?? footOf(scene, own, at);
  // A click lights one lamp of a pair.
  const way = path.length === 0 && own.fewestPoints === 1 ? [at] : path;
  const place = placeOnStalk(camera, at, foot);
  const neighbour = scene.fixtures.findLast(
    (fixture) => fixture.circuit === circuit.id && fixture.kind === kind,
  );
  const { lumens, kelvin, radius, heart, halo } = own.defaults;
  const gel = own.defaults.gel ?? kelvinGel(kelvin);
  const fixture = makeFixture(kind, {
    id: crypto.randomUUID(),
    name: freeName(`${circuit.name} ${own.noun}`, scene.fixtures),
    circuit: circuit.id,
    ...{ at, foot, path: way, lumens, heart, halo },
    size: clampTo(radius / metresPerWidth(camera, at, place), RANGES.size),
    gel: neighbour?.gel ?? gel,
    aim: own.aimed ? towardEye(camera, foot) : foot,
    ...{ shown: 0, spill: 0 },
    ...(carrier && { on: carrier.id }),
    ...own.begin?.(camera, path, wallAt(camera, wallPieces(camera, scene.plan.walls), at) !== undefined),
  });
  return unlike(fixture, scene.fixtures);
}

/** What is usual of a kind of lamp that hangs. */
export function usualLamp(kind: KindName): UsualLamp {
  const { defaults, twins } = kindOf({ kind });
  return { radius: defaults.radius, height: defaults.height, round: twins.byGlass ?? false };
}

/** How much less power a low lamp has and how much more a high one, at most: lamps are made to light the ground about alike. */
const POWER_BY_HEIGHT = { least: 0.2, most: 2 } as const;

/** Flux in whole steps. */
const wholePower = (lumens: number) =>
  clampTo(RANGES.lumens.step * Math.max(1, Math.round(lumens / RANGES.lumens.step)), RANGES.lumens);

/** A new fixture with the power that is usual of one so large, where its kind knows. */
export function withUsualPower<F extends Fixture>(scene: Scene, fixture: F): F {
  const camera = cameraOf(scene);
  const power = kindOf(fixture).usualPower?.(camera, wallPieces(camera, scene.plan.walls), fixture);
  return power === undefined ? fixture : { ...fixture, lumens: wholePower(power) };
}

/** What is set of a lamp that was clicked, by what the plate shows of where it hangs. */
export function hungValues(scene: Scene, kind: KindName, { at, radius, foot }: HungLamp): FixtureValues {
  const { lumens, height } = kindOf({ kind }).defaults;
  const up = placeOnStalk(cameraOf(scene), at, foot)[2];
  const { least, most } = POWER_BY_HEIGHT;
  const power = lumens * Math.min(most, Math.max(least, (up / height) ** 2));
  return {
    ...{ foot, aim: foot, lumens: wholePower(power) },
    ...(radius && { size: clampTo(radius, RANGES.size) }),
  };
}

/** Vehicle lamps first shine to a place on the ground this share of the way from the eye to them. */
const AIMED = 0.55;

/** A place on the ground between the eye and a foot. */
function towardEye(camera: Camera, foot: PlatePoint): PlatePoint {
  const [x, y] = groundPoint(camera, foot);
  return boundPlace(project(camera, [AIMED * x, AIMED * y, 0]) ?? foot);
}

/** The middle of a path's extent. */
export function middleOfPath(path: readonly PlatePoint[]): PlatePoint {
  const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2;
  return { u: middle(path.map(({ u }) => u)), v: middle(path.map(({ v }) => v)) };
}

/** A pane across a drag: on the wall that is seen there, in its perspective. */
export function paneAcross(scene: Scene, from: PlatePoint, to: PlatePoint): PlatePoint[] {
  const camera = cameraOf(scene);
  return rectangleBetween(camera, wallPieces(camera, scene.plan.walls), from, to);
}

/** What a drag lights: an outline across it, a way around a frame, or what lies between its ends. */
export function pathAcross(scene: Scene, kind: KindName, from: PlatePoint, to: PlatePoint): PlatePoint[] {
  const { closed, gesture } = KINDS[kind];
  if (closed) return paneAcross(scene, from, to);
  if (gesture !== 'stroke') return [from, to];
  const frame = paneAcross(scene, from, to);
  return [...frame, frame[0]];
}

/** Half the sides of what keys alone light, fractions of the plate. */
const AROUND = { across: 0.03, down: 0.05 } as const;

/** The path of a fixture that keys alone light. */
export function pathAround(kind: KindName, { u, v }: PlatePoint): PlatePoint[] {
  const { closed, gesture, around } = kindOf({ kind });
  if (around) return around.map((off) => ({ u: u + off.u, v: v + off.v }));
  const { across, down } = AROUND;
  if (!closed) return gesture === 'click' ? [] : [-1, 1].map((side) => ({ u: u + side * across, v }));
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([x, y]) => ({ u: u + x * across, v: v + y * down }));
}

/** A drawn stroke's points within this are one straight line, fraction of the width. */
const STRAIGHT = 0.0012;

/** A tube's way along a stroke of u, v, pressure; straight from end to end where `straight` says so. */
export function tubeAlong(stroke: readonly number[], straight: boolean): PlatePoint[] {
  const points = stroke.flatMap((u, i) => (i % 3 === 0 ? [{ u, v: stroke[i + 1] }] : []));
  if (points.length < 2) return [];
  const kept = straight ? [points[0], points.at(-1)!] : simplifyPath(points, STRAIGHT);
  // A stroke longer than a scene can hold is kept more roughly.
  for (let rougher = 2 * STRAIGHT; ; rougher *= 2) {
    const fewer = kept.length > MOST_POINTS ? simplifyPath(kept, rougher) : kept;
    if (fewer.length <= MOST_POINTS) return fewer;
  }
}

/** How a fixture stands, in metres, for people to read. */
export function standingOf(scene: Scene, fixture: Fixture) {
  const camera = cameraOf(scene);
  const { place, radius } = placeFixture(camera, fixture);
  return { ahead: place[1], up: place[2], radius, perWidth: metresPerWidth(camera, fixture.at, place) };
}
