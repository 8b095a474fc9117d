import { unlike } from '@/core/fixture/make-fixture';
import { placeFixture } from '@/core/fixture/place-fixture';
import { cameraOf } from '@/core/picture/camera-of';
import { footForHeight, metresPerWidth, placeOnStalk } from '@/core/geometry/place-on-stalk';
import { checkedScene } from '@/core/scene/parse-scene';
import { MOST_FIXTURES, type Circuit, type Fixture, type Scene } from '@/core/scene/schema';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { freeName, stemOf } from './free-name';

/** Fixtures that were copied, to be pasted into this or another scene of this browser. */
export interface Copied {
  /** The ground plan by which they stand. */
  plan: string;
  /** How high each hangs and how large its glass is, metres. */
  fixtures: { fixture: Fixture; height: number; radius: number }[];
  circuits: Circuit[];
}

const KEY = 'sundew-copied';

const planOf = ({ plan, plate }: Scene) =>
  JSON.stringify([plan.horizon, plan.eyeHeight, plan.lens, plate.width / plate.height]);

/** What is copied of a scene. */
export function copyOf(scene: Scene, ids: readonly string[]): Copied {
  const camera = cameraOf(scene);
  const fixtures = scene.fixtures.filter(({ id }) => ids.includes(id));
  return {
    plan: planOf(scene),
    fixtures: fixtures.map((fixture) => {
      const { place, radius } = placeFixture(camera, fixture);
      return { fixture, height: place[2], radius };
    }),
    circuits: scene.circuits.filter(({ id }) => fixtures.some(({ circuit }) => circuit === id)),
  };
}

/** How far aside fixtures are pasted in a scene where they stand already, fractions of the plate. */
const ASIDE = 0.02;

/**
 * Copied fixtures as they stand in a scene: on circuits of the same names, else on new ones. By another ground plan each is as
 * high over the ground and as large as it was, and stands where that says. Mattes that the scene lacks hold nothing.
 */
export function pasteInto(scene: Scene, { plan, fixtures, circuits }: Copied) {
  const fresh: Circuit[] = [];
  const circuitFor = (id: string): string => {
    const name = circuits.find((circuit) => circuit.id === id)?.name ?? 'Circuit';
    const own = [...scene.circuits, ...fresh].find((circuit) => circuit.name === name);
    if (own) return own.id;
    const copied = { ...circuits.find((circuit) => circuit.id === id)!, id: crypto.randomUUID() };
    fresh.push(copied);
    return copied.id;
  };
  const camera = cameraOf(scene);
  const isSame = plan === planOf(scene);
  const known = (id: string | undefined) => scene.mattes.some((matte) => matte.id === id);
  const taken = [...scene.fixtures];
  const bulbs = new Map<string, string>();
  const pasted = fixtures
    .slice(0, MOST_FIXTURES - scene.fixtures.length)
    .map(({ fixture, height, radius }) => {
      const { behind, only, bulb, on: _on, ...own } = fixture;
      if (bulb !== undefined && !bulbs.has(bulb)) bulbs.set(bulb, crypto.randomUUID());
      const by = isSame && scene.fixtures.some(({ id }) => id === fixture.id) ? ASIDE : 0;
      const aside = ({ u, v }: Fixture['at']) => ({ u: u + by, v });
      const stands = isSame ? aside(own.foot) : footForHeight(camera, own.at, height);
      const perWidth = metresPerWidth(camera, own.at, placeOnStalk(camera, own.at, stands));
      const size = clampTo(radius / perWidth, RANGES.size);
      const copy = unlike(
        {
          ...own,
          id: crypto.randomUUID(),
          name: freeName(stemOf(own), taken),
          circuit: circuitFor(own.circuit),
          at: aside(own.at),
          path: own.path.map(aside),
          foot: stands,
          aim: isSame
            ? aside(own.aim)
            : { u: stands.u + own.aim.u - own.foot.u, v: stands.v + own.aim.v - own.foot.v },
          size: isSame ? own.size : size,
          ...(bulb !== undefined && { bulb: bulbs.get(bulb) }),
          ...(known(behind) && { behind }),
          ...(only && known(only.matte) && { only }),
        },
        taken,
      );
      taken.push(copy);
      return copy;
    });
  return { fixtures: pasted, circuits: fresh, differs: !isSame };
}

export const keepCopied = (copied: Copied): void => localStorage.setItem(KEY, JSON.stringify(copied));

/** What was copied last, if it can still be read. */
export function readCopied(scene: Scene): Copied | undefined {
  try {
    const copied = JSON.parse(localStorage.getItem(KEY) ?? '') as Copied;
    // What another version of the editor kept is not trusted.
    const fixtures = copied.fixtures.map(({ fixture: { behind: _b, only: _o, on: _on, ...own } }) => own);
    checkedScene({ ...scene, fixtures, circuits: copied.circuits });
    return copied;
  } catch {
    return undefined;
  }
}
