import { describe, expect, it } from 'vitest';
import { kelvinGel } from '@/core/fixture/kelvin-gel';
import { addFixture } from '@/core/scene/fixture-commands';
import { runCommand } from '@/core/scene/command';
import { checkedScene } from '@/core/scene/parse-scene';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { isSet, lampsOf, nextUnset, setBorrowed } from './borrowed-lamps';
import { standingOf } from './fixture-actions';

const source = {
  ...streetScene([
    streetLamp('Quay lamp 1', 0.3, {
      circuit: 'q',
      lumens: 640,
      gel: kelvinGel(1900),
      halo: 0.7,
      behind: 'm',
    }),
    streetLamp('Door 1', 0.6, { circuit: 'd', kind: 'lantern' }),
    streetLamp('Quay lamp 2', 0.7, { circuit: 'q' }),
  ]),
  circuits: [testCircuit('q', { name: 'Quay', level: -1 }), testCircuit('d', { name: 'Doors' })],
};
const street = streetScene([]);
const target = { ...street, plan: { ...street.plan, eyeHeight: 2.6 }, circuits: [] };
const lamps = lampsOf(source);

describe('lamps of another scene', () => {
  it('come circuit by circuit', () => {
    expect(lamps.map(({ fixture }) => fixture.name)).toEqual(['Quay lamp 1', 'Quay lamp 2', 'Door 1']);
  });

  it('are lit as they were: power, gel, settings, and as large, on a circuit of the same name', () => {
    for (const v of [0.3, 0.5]) {
      const { fixture, circuit } = setBorrowed(target, lamps[0], { u: 0.5, v }, [], {});
      expect(fixture).toMatchObject({ name: 'Quay lamp 1', kind: 'globe', lumens: 640, halo: 0.7 });
      expect(fixture.gel).toEqual(kelvinGel(1900));
      expect(fixture.behind).toBeUndefined();
      expect(fixture.at).toEqual({ u: 0.5, v });
      expect(standingOf(target, fixture).radius).toBeCloseTo(lamps[0].radius, 3);
      expect(circuit).toMatchObject({ name: 'Quay', level: -1 });
      const { scene } = runCommand(target, addFixture(fixture, circuit));
      expect(checkedScene(scene)).toEqual(scene);
      const second = setBorrowed(scene, lamps[1], { u: 0.2, v }, [], {});
      expect(second.circuit.id).toBe(circuit.id);
    }
  });

  it('stand where the gesture found out, and keep their power', () => {
    const more = { foot: { u: 0.5, v: 0.9 }, size: 0.03, lumens: 99 };
    const { fixture } = setBorrowed(target, lamps[0], { u: 0.5, v: 0.4 }, [], more);
    expect(fixture).toMatchObject({ foot: more.foot, size: 0.03, lumens: 640 });
  });

  it('bend along the way that is drawn, whatever the way was that they had', () => {
    const path = [0.2, 0.3, 0.4, 0.5].map((u) => ({ u, v: 0.3 }));
    const word = streetLamp('Word', 0.5, { circuit: 'q', kind: 'tube', path, breaks: [2] });
    const [tube] = lampsOf({ ...source, fixtures: [word] });
    const drawn = path.slice(0, 2);
    const { fixture } = setBorrowed(target, tube, { u: 0.3, v: 0.3 }, drawn, {});
    expect(fixture).toMatchObject({ path: drawn, breaks: [] });
  });

  it('wait one after the other, those that are set no more', () => {
    expect(nextUnset(target, lamps)).toBe(lamps[0]);
    expect(nextUnset(target, lamps, lamps[0].fixture.id)).toBe(lamps[1]);
    expect(nextUnset(target, lamps, lamps[2].fixture.id)).toBe(lamps[0]);
    const { fixture, circuit } = setBorrowed(target, lamps[1], { u: 0.5, v: 0.4 }, [], {});
    const { scene } = runCommand(target, addFixture(fixture, circuit));
    expect(lamps.map((lamp) => isSet(scene, lamp))).toEqual([false, true, false]);
    expect(nextUnset(scene, lamps, lamps[0].fixture.id)).toBe(lamps[2]);
    // A second one of a name that is taken gets another name.
    expect(setBorrowed(scene, lamps[1], { u: 0.2, v: 0.4 }, [], {}).fixture.name).toBe('Quay lamp 1');
  });

  it('are none where all are set', () => {
    let scene = target as typeof street;
    for (const lamp of lamps) {
      const { fixture, circuit } = setBorrowed(scene, lamp, { u: 0.5, v: 0.4 }, [], {});
      scene = runCommand(scene, addFixture(fixture, circuit)).scene;
    }
    expect(nextUnset(scene, lamps)).toBeUndefined();
  });
});
