import { describe, expect, it } from 'vitest';
import { testPlaced } from '../../../test/placed';
import { streetLamp, streetScene } from '../../../test/street';
import { createCamera } from '../geometry/camera';
import { cardOf, onCard } from '../placed/placed-card';
import { groundOf } from '../placed/placed-land';
import { placedFaults } from '../picture/placed-faults';
import { runCommand } from './command';
import { addSurface, removeSurface, setPlan, setSurface } from './commands';
import { removeMatte } from './matte-commands';
import { PLAIN_SURFACE } from './new-scene';
import { checkedScene, SceneFormatError } from './parse-scene';
import { addPlaced, copyPlaced, removePlaced, setPlaced } from './placed-commands';
import type { Scene } from './schema';
import { usesOf } from './matte-uses';
import { half } from '../../../test/spy-renderer';

const lamp = streetLamp('lamp', 0.5, { at: { u: 0.5, v: 0.6 }, foot: { u: 0.5, v: 0.8 }, on: 'p' });
const SCENE = { ...streetScene([lamp]), placed: [testPlaced('p')] };
const after = (scene: Scene, ...commands: Parameters<typeof runCommand>[1][]) =>
  commands.reduce((now, command) => runCommand(now, command).scene, scene);

/** Where on its card the lamp of a scene is. */
function lampOn(scene: Scene, k = 0) {
  const camera = createCamera(scene.plan, scene.plate.width / scene.plate.height);
  return onCard(camera, cardOf(camera, groundOf(camera, scene.plan), scene.placed[k]), scene.fixtures[k].at)!;
}

describe('commands on placed pictures', () => {
  it('take the lamps of a picture along, wherever it goes', () => {
    const moved = after(
      SCENE,
      setPlaced('Move', 'p', { foot: { u: 0.3, v: 0.9 } }),
      setPlaced('Height', 'p', { tall: 2.4 }),
      setPlaced('Turn', 'p', { turn: 30, lean: 10 }),
    );
    expect(lampOn(moved).up).toBeCloseTo(lampOn(SCENE).up, 6);
    expect(lampOn(moved).across).toBeCloseTo(lampOn(SCENE).across, 6);
    expect(checkedScene(moved)).toBe(moved);
  });

  it('and commands on the plan take lamps along with a picture that is seen elsewhere then', () => {
    const { left, right } = SCENE.plan.horizon;
    const moved = after(
      SCENE,
      setPlan('Horizon', { horizon: { left: left - 0.04, right: right - 0.02 } }),
      setPlan('Eye', { eyeHeight: 2.1 }),
      setPlan('Lens', { lens: 1.5 * SCENE.plan.lens }),
    );
    expect(moved.fixtures[0].at).not.toEqual(lamp.at);
    expect(lampOn(moved).up).toBeCloseTo(lampOn(SCENE).up, 6);
    expect(lampOn(moved).across).toBeCloseTo(lampOn(SCENE).across, 6);
    // Hung on a wall, it goes with the wall.
    const wall = {
      id: 'w',
      name: 'W',
      foot: [0, 1].map((u) => ({ u, v: 0.75 })),
      height: 6,
      ...PLAIN_SURFACE,
    };
    const hung = after(
      SCENE,
      addSurface('Wall', 'walls', wall),
      setPlaced('Hang', 'p', { hangs: true, foot: { u: 0.5, v: 0.62 } }),
    );
    const nearer = setSurface('Foot', 'walls', 'w', { foot: [0, 1].map((u) => ({ u, v: 0.85 })) });
    for (const scene of [after(hung, nearer), after(hung, removeSurface('Gone', 'walls', 'w'))]) {
      expect(lampOn(scene).up).toBeCloseTo(lampOn(hung).up, 6);
      expect(scene.fixtures[0].size).not.toBe(hung.fixtures[0].size);
    }
  });

  it('and commands on what moves no picture leave its lamps to the last digit', () => {
    expect(after(SCENE, setPlan('Mirrors', { mirrors: 0.5 })).fixtures).toEqual(SCENE.fixtures);
    const two = { ...SCENE, placed: [testPlaced('p'), testPlaced('q')] };
    const other = setPlaced('Move', 'q', { foot: { u: 0.2, v: 0.9 } });
    expect(after(two, other).fixtures).toEqual(SCENE.fixtures);
  });

  it('place copies with lamps of their own, and take both away', () => {
    const copy = { id: 'q', name: 'Q', foot: { u: 0.7, v: 0.8 } };
    const two = after(SCENE, copyPlaced('p', copy, new Map([['lamp', { id: 'lamp2', name: 'Lamp 2' }]])));
    expect(two.fixtures.map(({ id, on }) => [id, on])).toEqual([
      ['lamp', 'p'],
      ['lamp2', 'q'],
    ]);
    expect(lampOn(two, 1).up).toBeCloseTo(lampOn(two).up, 6);
    const one = after(two, removePlaced('p'));
    expect(one.fixtures.map(({ id }) => id)).toEqual(['lamp2']);
    expect(after(one, removePlaced('q')).circuits).toEqual([]);
    expect(checkedScene(one)).toBe(one);
  });

  it('pass over a picture that is gone', () => {
    expect(after(SCENE, setPlaced('Move', 'gone', { tall: 3 }))).toEqual(SCENE);
    expect(after(SCENE, copyPlaced('gone', { id: 'q', name: 'Q', foot: { u: 0, v: 0 } }, new Map()))).toEqual(
      SCENE,
    );
  });

  it('hold on to mattes: what is behind one is told, and let go with it', () => {
    const held = { ...after(SCENE, setPlaced('Behind', 'p', { behind: 'half' })), mattes: [half] };
    expect(usesOf(held, 'half')).toContain('p, behind it');
    expect(after(held, removeMatte('half')).placed[0].behind).toBeUndefined();
  });
});

describe('a scene with placed pictures', () => {
  const refused = (placed: unknown[], more: object = {}) => {
    expect(() => checkedScene({ ...streetScene([]), placed, ...more })).toThrow(SceneFormatError);
  };

  it('is refused where one cannot be', () => {
    refused([testPlaced('p', { body: { left: 0.5, right: 0.5, top: 0, bottom: 1 } })]);
    refused([testPlaced('p', { tall: 0 })]);
    refused([testPlaced('p', { asset: '../plate' })]);
    refused([testPlaced('p'), testPlaced('p')]);
    refused([testPlaced('p', { behind: 'gone' })]);
    const sky = { id: 's', join: 'add', kind: 'sky' };
    refused([{ ...testPlaced('p'), cut: { passes: [sky], refine: 0, grow: 0, feather: 0 } }]);
    refused([], { fixtures: [lamp], circuits: streetScene([lamp]).circuits });
    refused(Array.from({ length: 41 }, (_, k) => testPlaced(`p${k}`)));
  });

  it('says what one cannot be', () => {
    const over = after(SCENE, setPlaced('Up', 'p', { foot: { u: 0.5, v: 0.2 } }));
    expect(placedFaults(over)).toEqual([expect.stringContaining('above the horizon') as string]);
    const hung = after(SCENE, setPlaced('Hang', 'p', { hangs: true, foot: { u: 0.5, v: 0.62 } }));
    expect(placedFaults(hung)).toEqual([expect.stringContaining('No wall') as string]);
    expect(placedFaults(after(SCENE, addPlaced(testPlaced('q'))))).toEqual([]);
  });
});
