import { describe, expect, it } from 'vitest';
import { createDisplayCodes } from '@/core/film/display-codes';
import { developLight } from '@/core/film/develop-light';
import { dabsOf, layDabs, paintCoverage } from '@/core/matte/paint-coverage';
import { rowsOf } from '@/core/plane/region';
import { setDesk } from '@/core/scene/commands';
import { setCircuit } from '@/core/scene/fixture-commands';
import type { Scene, Touch } from '@/core/scene/schema';
import { layStroke, setTouch } from '@/core/scene/touch-commands';
import { touchedLight } from '@/core/touch/touched-light';
import {
  after,
  half,
  largestDifference,
  luminanceAt,
  NEVER,
  show,
  spyRenderer,
  WHOLE,
} from '../../test/spy-renderer';
import { streetLamp, streetScene } from '../../test/street';
import { testStroke, testTouch } from '../../test/touches';
import { touchGroundOf } from './readouts/touch-ground';
import { stroked } from './stages/touch';

const DARK = streetScene([streetLamp('lamp', 0.5, { lumens: 1 })]);
const withTouch = (more: Partial<Touch> = {}): Scene => ({
  ...DARK,
  mattes: [half],
  touches: [testTouch('t', { amount: 20, ...more })],
});
const [ON, OFF, SKY] = [
  { u: 0.45, v: 0.8 },
  { u: 0.45, v: 0.95 },
  { u: 0.45, v: 0.1 },
];

describe('touches in the renderer', () => {
  it('light surfaces where they are laid, in colour, on the fader of their circuit', async () => {
    const { renderer } = spyRenderer();
    const [before, lit] = [await show(renderer, DARK), await show(renderer, withTouch())];
    expect(luminanceAt(lit, ON.u, ON.v)).toBeGreaterThan(luminanceAt(before, ON.u, ON.v) + 20);
    expect(luminanceAt(lit, OFF.u, OFF.v)).toBe(luminanceAt(before, OFF.u, OFF.v));
    const dimmed = await show(renderer, after(withTouch(), setCircuit('Dim', 'street', { level: -4 })));
    expect(luminanceAt(dimmed, ON.u, ON.v)).toBeLessThan(luminanceAt(lit, ON.u, ON.v) - 15);
    const muted = await show(renderer, after(withTouch(), setCircuit('Mute', 'street', { muted: true })));
    const dark = await show(renderer, after(DARK, setCircuit('Mute', 'street', { muted: true })));
    expect(largestDifference(muted, dark)).toBe(0);
  });

  it('light no sky, but shine before it in the air', async () => {
    const { renderer } = spyRenderer();
    const strokes = [testStroke({ path: [0.3, 0.1, 1, 0.6, 0.1, 1] })];
    const before = await show(renderer, DARK);
    const onSky = await show(renderer, withTouch({ strokes }));
    expect(luminanceAt(onSky, SKY.u, SKY.v)).toBeCloseTo(luminanceAt(before, SKY.u, SKY.v), 0);
    const inAir = await show(renderer, withTouch({ strokes, does: 'air' }));
    expect(luminanceAt(inAir, SKY.u, SKY.v)).toBeGreaterThan(luminanceAt(before, SKY.u, SKY.v) + 20);
  });

  it('are kept in a matte, and lift or hold the night’s own light without any circuit', async () => {
    const { renderer } = spyRenderer();
    const lit = await show(renderer, withTouch());
    const inside = await show(renderer, withTouch({ only: { matte: 'half', outside: true } }));
    const before = await show(renderer, DARK);
    expect(luminanceAt(inside, 0.4, 0.8)).toBe(luminanceAt(before, 0.4, 0.8));
    expect(luminanceAt(inside, 0.56, 0.8)).toBe(luminanceAt(lit, 0.56, 0.8));
    const tone = async (amount: number) =>
      luminanceAt(await show(renderer, withTouch({ does: 'lift', circuit: undefined, amount })), ON.u, ON.v);
    expect(await tone(1)).toBeGreaterThan(luminanceAt(before, ON.u, ON.v) + 5);
    expect(await tone(-1)).toBeLessThan(luminanceAt(before, ON.u, ON.v) - 5);
  });

  it('take a new gel without being laid on anew', async () => {
    const { renderer, tasks } = spyRenderer();
    await show(renderer, withTouch());
    tasks.length = 0;
    const gel = { from: 'picture', kelvin: 2700, color: [0.4, 1.1, 2] } as const;
    await show(
      renderer,
      after(withTouch(), setTouch('Gel', 't', { gel: { ...gel, color: [...gel.color] } })),
    );
    expect(tasks).toEqual(['sum', 'film']);
  });

  it('of many strokes are laid on what is there when one comes, and are what all of them at once come to', async () => {
    const { renderer, tasks } = spyRenderer();
    const strokes = Array.from({ length: 70 }, (_, k) =>
      testStroke({ path: [0.1 + k / 90, 0.7, 1, 0.2 + k / 90, 0.95, 1], flow: 0.05, erase: k % 9 === 8 }),
    );
    const covered = (scene: Scene) =>
      renderer.read(async (reader) => {
        const at = reader.spot({ scene, region: WHOLE });
        return (
          await reader.see(stroked(at, { touch: scene.touches[0], count: strokes.length }))
        ).coverage.slice();
      }, NEVER);
    const many = await covered(withTouch({ strokes }));
    const once = new Float32Array(many.length);
    paintCoverage(once, new Float32Array(many.length), strokes, WHOLE);
    many.forEach((value, i) => expect(Math.abs(value - once[i])).toBeLessThan(1e-4));
    const first = withTouch({ strokes: strokes.slice(0, 68) });
    await show(renderer, first);
    tasks.length = 0;
    const more = await show(renderer, after(first, layStroke('t', strokes[68])));
    expect(tasks.filter((stage) => stage === 'stroked')).toHaveLength(1);
    const anew = await show(spyRenderer().renderer, withTouch({ strokes: strokes.slice(0, 69) }));
    expect(largestDifference(more, anew)).toBe(0);
  });

  it('are the same in bands as in one piece', async () => {
    const { renderer } = spyRenderer();
    const whole = await show(renderer, withTouch());
    const band = await show(renderer, withTouch(), rowsOf(WHOLE, 112, 32));
    const cut = whole.slice(4 * 112 * WHOLE.width, 4 * 144 * WHOLE.width);
    expect(largestDifference(band, cut)).toBe(0);
  });

  it.each<[string, Partial<Touch>, boolean]>([
    ['on surfaces', {}, false],
    ['in the air', { does: 'air', amount: 3 }, false],
    ['lifting', { does: 'lift', circuit: undefined, amount: 2 }, false],
    ['taken off', {}, true],
  ])('show under the brush what the picture is once the stroke is let go: %s', async (_, more, erase) => {
    const { renderer } = spyRenderer();
    const hazy = after(withTouch(more), setDesk('Haze', { haze: 1 }));
    const [touch] = hazy.touches;
    const ground = await renderer.read(touchGroundOf({ scene: hazy, region: WHOLE }, touch), NEVER);
    const stroke = testStroke({ path: [0.2, 0.7, 1, 0.7, 0.9, 1], flow: 0.1, erase });
    const covered = new Float32Array(WHOLE.width * WHOLE.height);
    layDabs(covered, dabsOf(stroke, 1.5), stroke.soft, WHOLE);
    const plane = () => covered.slice();
    const light = { ...WHOLE, r: plane(), g: plane(), b: plane() };
    const laid = { does: touch.does, stops: touch.amount, strength: 1, erase };
    const all = { left: 0, top: 0, right: WHOLE.width, bottom: WHOLE.height };
    touchedLight(light, ground, covered, laid, all);
    const live = new Uint8ClampedArray(4 * covered.length);
    developLight(live, light, createDisplayCodes(255));
    const done = await show(renderer, after(hazy, layStroke('t', stroke)));
    expect(largestDifference(live, done)).toBeLessThanOrEqual(1);
    expect(largestDifference(done, await show(renderer, hazy))).toBeGreaterThan(10);
  });
});
