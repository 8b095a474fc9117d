import { describe, expect, it } from 'vitest';
import { rowsOf } from '@/core/plane/region';
import { setDesk, setGround, setPlan } from '@/core/scene/commands';
import { setCircuit } from '@/core/scene/fixture-commands';
import { upgradeScene } from '@/core/scene/upgrade';
import type { Matte } from '@/core/scene/schema';
import {
  after,
  half,
  largestDifference,
  luminanceAt,
  show,
  spyRenderer,
  WHOLE,
} from '../../test/spy-renderer';
import { streetLamp, streetScene } from '../../test/street';

const WET = { sheen: 0.8, roughness: 0.15, crease: 0 };
const DRY = after(streetScene([]), setDesk('Ambient', { ambient: 2 }));
const wet = after(DRY, setGround('Wet', WET));
const without = after(wet, setPlan('Mirrors', { mirrors: 0 }));
const FRONT_CORNERS = [
  { u: 0, v: 0.32 },
  { u: 1, v: 0.32 },
  { u: 1, v: 0.56 },
  { u: 0, v: 0.56 },
];
/** The front over the paving. */
const FRONT: Matte = {
  ...half,
  passes: [{ id: 'o', join: 'add', kind: 'outline', points: FRONT_CORNERS }],
};
const FAR = { u: 0.5, v: 0.62 };

describe('mirrors in the renderer', () => {
  it('show the front and the sky in wet ground, and nothing in dry', async () => {
    const { renderer } = spyRenderer();
    const at = async (scene: typeof DRY) => luminanceAt(await show(renderer, scene), FAR.u, FAR.v);
    expect(await at(wet)).toBeGreaterThan((await at(without)) + 3);
    const dry = after(DRY, setPlan('Mirrors', { mirrors: 0 }));
    expect(largestDifference(await show(renderer, DRY), await show(renderer, dry))).toBe(0);
  });

  it('follow the faders without being followed anew, and are the same in bands', async () => {
    const { renderer, tasks } = spyRenderer();
    const lit = after(streetScene([streetLamp('lamp', 0.5)]), setGround('Wet', WET));
    const whole = await show(renderer, lit);
    const band = await show(renderer, lit, rowsOf(WHOLE, 96, 32));
    expect(largestDifference(band, whole.slice(4 * 96 * WHOLE.width, 4 * 128 * WHOLE.width))).toBe(0);
    tasks.length = 0;
    const off = after(lit, setCircuit('Off', 'street', { level: -4 }));
    const dimmed = await show(renderer, off);
    expect(tasks).toEqual(['mirror light', 'mirror pyramid', 'mirror image', 'sum', 'mirrored', 'film']);
    expect(luminanceAt(dimmed, 0.5, 0.65)).toBeLessThan(luminanceAt(whole, 0.5, 0.65));
  });

  it('show what a mirror shows, once more', async () => {
    const { renderer, tasks } = spyRenderer();
    const glass = (sheen: number) => {
      const gloss = { id: 'g', name: 'Glass', matte: 'half', turn: 30, lean: 0, roundness: 0 };
      const glosses = [{ ...gloss, sheen, roughness: 0.1 }];
      return { ...wet, mattes: [FRONT], plan: { ...wet.plan, glosses } };
    };
    const [dull, shiny] = [await show(renderer, glass(0)), await show(renderer, glass(1))];
    expect(tasks.filter((task) => task === 'mirror image')).toHaveLength(3);
    // The paving shows the front that shows the sky.
    expect(luminanceAt(shiny, 0.5, 0.8)).toBeGreaterThan(luminanceAt(dull, 0.5, 0.8) + 0.7);
  });

  it('are off in scenes from before there were any', () => {
    const { plan, ...rest } = wet;
    const { mirrors: _, ...older } = plan;
    const upgraded = upgradeScene({ ...rest, version: 14, plan: older });
    expect((upgraded as unknown as typeof wet).plan.mirrors).toBe(0);
  });
});
