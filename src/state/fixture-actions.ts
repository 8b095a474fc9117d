import { FIXTURE_KINDS, kelvinGel } from '@/core/fixture/defaults';
import { placeFixture } from '@/core/fixture/place-fixture';
import { metresPerWidth, placeOnStalk, footForHeight } from '@/core/plan/place-on-stalk';
import type { PlatePoint } from '@/core/plan/camera';
import { RANGES, type Range } from '@/core/scene/ranges';
import type { Circuit, Fixture, Scene } from '@/core/scene/schema';
import { PLAIN_GRIP } from '@/core/scene/new-scene';
import { cameraOf } from '@/core/picture/camera-of';

const hold = (value: number, { min, max }: Range) => Math.min(max, Math.max(min, value));

/** A name with the lowest number that none of the items has yet. */
export function freeName(stem: string, items: { name: string }[]): string {
  const taken = new Set(items.map(({ name }) => name));
  let n = 1;
  while (taken.has(`${stem} ${n}`)) n++;
  return `${stem} ${n}`;
}

/** A circuit with everything at its middle. */
export function newCircuit(scene: Scene): Circuit {
  return {
    id: crypto.randomUUID(),
    name: freeName('Circuit', scene.circuits),
    level: 0,
    lampLevel: 0,
    spillLevel: 0,
    grip: { ...PLAIN_GRIP },
    muted: false,
    solo: false,
  };
}

/** A globe lit at a place of the picture: the real thing's power and size, on a stalk of its usual height. */
export function newGlobe(scene: Scene, at: PlatePoint, circuit: Circuit): Fixture {
  const kind = FIXTURE_KINDS.globe;
  const camera = cameraOf(scene);
  const foot = footForHeight(camera, at, kind.height);
  const place = placeOnStalk(camera, at, foot);
  const neighbour = scene.fixtures.findLast((fixture) => fixture.circuit === circuit.id);
  return {
    id: crypto.randomUUID(),
    kind: 'globe',
    name: freeName(`${circuit.name} lamp`, scene.fixtures),
    circuit: circuit.id,
    at,
    foot,
    size: hold(kind.radius / metresPerWidth(camera, at, place), RANGES.size),
    gel: neighbour?.gel ?? kelvinGel(kind.kelvin),
    lumens: kind.lumens,
    heart: kind.heart,
    halo: kind.halo,
    spill: 0,
    bars: 0,
    barGlow: 0.4,
    path: [],
    interior: kind.interior,
    standOff: kind.standOff,
  };
}

/** How a fixture stands, in metres, for people to read. */
export function standingOf(scene: Scene, fixture: Fixture) {
  const camera = cameraOf(scene);
  const { place, radius } = placeFixture(camera, fixture);
  return { ahead: place[1], up: place[2], radius, perWidth: metresPerWidth(camera, fixture.at, place) };
}
