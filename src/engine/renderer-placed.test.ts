import { describe, expect, it } from 'vitest';
import { rowsOf, wholeRegion } from '@/core/plane/region';
import { setDesk } from '@/core/scene/commands';
import { setCircuit } from '@/core/scene/fixture-commands';
import { checkedScene } from '@/core/scene/parse-scene';
import { addPlaced, removePlaced, setPlaced } from '@/core/scene/placed-commands';
import {
  after,
  half,
  largestDifference,
  luminanceAt,
  show,
  spyRenderer,
  WHOLE,
} from '../../test/spy-renderer';
import { testPlaced } from '../../test/placed';
import { STREET, streetLamp, streetScene } from '../../test/street';

const CLEAR = after(streetScene([]), setDesk('Ambient', { ambient: 2 }));
const PLACED = after(CLEAR, addPlaced(testPlaced('p')));
/** On the white, the grey and the black third of the chart. */
const [WHITE, BLACK] = [
  { u: 0.5, v: 0.55 },
  { u: 0.5, v: 0.75 },
];
const BESIDE = { u: 0.62, v: 0.75 };

describe('placed pictures in the renderer', () => {
  it('stand in the night with their own tones, and nowhere else', async () => {
    const { renderer } = spyRenderer();
    const [with_, without] = [await show(renderer, checkedScene(PLACED)), await show(renderer, CLEAR)];
    const on = (at: typeof WHITE) => luminanceAt(with_, at.u, at.v);
    expect(on(WHITE)).toBeGreaterThan(1.5 * on(BLACK));
    expect(on(BESIDE)).toBe(luminanceAt(without, BESIDE.u, BESIDE.v));
    expect(largestDifference(await show(renderer, after(PLACED, removePlaced('p'))), without)).toBe(0);
  });

  it('hide the sky that stands behind the skyline, stars and all', async () => {
    const { renderer } = spyRenderer();
    const tall = after(PLACED, setPlaced('Tall', 'p', { tall: 4.5, foot: { u: 0.5, v: 0.85 } }));
    const [with_, without] = [await show(renderer, tall), await show(renderer, CLEAR)];
    expect(luminanceAt(with_, 0.5, 0.1)).not.toBe(luminanceAt(without, 0.5, 0.1));
    expect(luminanceAt(with_, 0.1, 0.1)).toBe(luminanceAt(without, 0.1, 0.1));
  });

  it('are lit by the circuits on their faders, and throw a shadow', async () => {
    const { renderer } = spyRenderer();
    const lamp = streetLamp('lamp', 0.5, { at: { u: 0.5, v: 0.35 }, foot: { u: 0.5, v: 0.95 } });
    const dark = after(streetScene([lamp]), setDesk('Ambient', { ambient: -8 }));
    const lit = after(dark, addPlaced(testPlaced('p')));
    const off = after(lit, setCircuit('Off', 'street', { muted: true }));
    const [on, dimmed, without] = [
      await show(renderer, lit),
      await show(renderer, off),
      await show(renderer, dark),
    ];
    expect(luminanceAt(on, WHITE.u, WHITE.v)).toBeGreaterThan(luminanceAt(dimmed, WHITE.u, WHITE.v) + 30);
    // The lamp stands before it, so its shadow falls away from the eye.
    const behind = { u: 0.42, v: 0.68 };
    const shadow = Array.from({ length: 30 }, (_, k) => ({ u: 0.2 + 0.02 * k, v: behind.v })).filter(
      ({ u, v }) => luminanceAt(on, u, v) < 0.7 * luminanceAt(without, u, v),
    );
    expect(shadow.length).toBeGreaterThan(0);
  });

  it('are hidden by what stands nearer, by each other, and by a matte that says so', async () => {
    const { renderer } = spyRenderer();
    const nearer = after(PLACED, addPlaced(testPlaced('q', { foot: { u: 0.5, v: 0.95 }, tall: 0.6 })));
    const [both, one] = [await show(renderer, nearer), await show(renderer, PLACED)];
    expect(luminanceAt(both, 0.5, 0.79)).toBeGreaterThan(luminanceAt(one, 0.5, 0.79) + 20);
    const held = { ...after(PLACED, setPlaced('Behind', 'p', { behind: 'half' })), mattes: [half] };
    const [hidden, clear] = [await show(renderer, held), await show(renderer, CLEAR)];
    expect(luminanceAt(hidden, 0.49, 0.6)).toBe(luminanceAt(clear, 0.49, 0.6));
    expect(luminanceAt(hidden, 0.51, 0.6)).toBe(luminanceAt(one, 0.51, 0.6));
  });

  it('darken the ground at their feet under the sky', async () => {
    const { renderer } = spyRenderer();
    const [soft, hard] = [PLACED, after(PLACED, setPlaced('Contact', 'p', { contact: 1 }))];
    const beside = { u: 0.5, v: 0.815 };
    const [before, with_] = [await show(renderer, soft), await show(renderer, hard)];
    expect(luminanceAt(with_, beside.u, beside.v)).toBeLessThan(
      0.9 * luminanceAt(before, beside.u, beside.v),
    );
    expect(luminanceAt(with_, 0.05, 0.95)).toBeCloseTo(luminanceAt(before, 0.05, 0.95), -0.5);
  });

  it('are the same in bands, and about the same at half the size', async () => {
    const { renderer } = spyRenderer();
    const scene = after(PLACED, setPlaced('Contact', 'p', { contact: 1, turn: 20, soft: 0.004, grain: 400 }));
    const whole = await show(renderer, scene);
    const band = await show(renderer, scene, rowsOf(WHOLE, 64, 32));
    expect(largestDifference(band, whole.slice(4 * 64 * WHOLE.width, 4 * 96 * WHOLE.width))).toBe(0);
    const small = await show(renderer, scene, wholeRegion(STREET.width / 2, STREET.height / 2));
    const middle = 4 * (Math.floor(0.55 * 80) * 120 + 60);
    expect(Math.abs(small[middle + 1] - whole[4 * (Math.floor(0.55 * 160) * 240 + 120) + 1])).toBeLessThan(
      16,
    );
  });

  it('need no more than the sum when a fader moves', async () => {
    const { renderer, tasks } = spyRenderer();
    const lamp = streetLamp('lamp', 0.4);
    const lit = after(streetScene([lamp]), addPlaced(testPlaced('p', { contact: 1 })));
    await show(renderer, lit);
    tasks.length = 0;
    await show(renderer, after(lit, setCircuit('Dim', 'street', { level: -1 })));
    expect(
      tasks.filter((name) => ['laid', 'cutout', 'relief', 'lamps', 'peopled day'].includes(name)),
    ).toEqual([]);
  });
});
