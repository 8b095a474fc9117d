import { describe, expect, it } from 'vitest';
import { FIRST_DRIFT, type Drift } from '@/core/drift/drift-schema';
import { rowsOf } from '@/core/plane/region';
import { setDesk } from '@/core/scene/commands';
import { addDrift, removeDrift, setDrift } from '@/core/scene/drift-commands';
import { setCircuit } from '@/core/scene/fixture-commands';
import { checkedScene } from '@/core/scene/parse-scene';
import { after, largestDifference, luminanceAt, show, spyRenderer, WHOLE } from '../../test/spy-renderer';
import { streetLamp, streetScene } from '../../test/street';

const DRIFT: Drift = {
  ...{ ...FIRST_DRIFT, id: 'd', name: 'Smoke', at: { u: 0.5, v: 0.5 }, foot: { u: 0.5, v: 0.78 } },
  ...{ density: 0.8, wisps: 0, tall: 1 },
};
const CLEAR = after(streetScene([streetLamp('lamp', 0.44)]), setDesk('Ambient', { ambient: -6 }));
const SMOKY = after(CLEAR, addDrift(DRIFT));
const IN = { u: 0.5, v: 0.47 };

describe('drifts in the renderer', () => {
  it('are lit by the circuits, on their faders, and dim what is behind', async () => {
    const { renderer } = spyRenderer();
    const at = async (scene = SMOKY) => luminanceAt(await show(renderer, checkedScene(scene)), IN.u, IN.v);
    const off = (scene: typeof SMOKY) => after(scene, setCircuit('Off', 'street', { muted: true }));
    const lit = (await at()) - (await at(off(SMOKY)));
    expect(lit).toBeGreaterThan(20);
    const dimmed = after(SMOKY, setCircuit('Dim', 'street', { level: -3 }));
    expect(await at(dimmed)).toBeLessThan((await at()) - 10);
    const day = (scene: typeof SMOKY) => after(off(scene), setDesk('Ambient', { ambient: 3 }));
    expect(await at(day(SMOKY))).not.toBe(await at(day(CLEAR)));
    expect(await at(after(SMOKY, removeDrift('d')))).toBe(await at(CLEAR));
  });

  it('follow a fader without being made anew, and are the same in bands', async () => {
    const { renderer, tasks } = spyRenderer();
    const whole = await show(renderer, SMOKY);
    const band = await show(renderer, SMOKY, rowsOf(WHOLE, 64, 32));
    expect(largestDifference(band, whole.slice(4 * 64 * WHOLE.width, 4 * 96 * WHOLE.width))).toBe(0);
    tasks.length = 0;
    await show(renderer, after(SMOKY, setCircuit('Dim', 'street', { level: -1 })));
    expect(tasks).toEqual(['sum', 'drifted', 'film']);
  });

  it('are hidden behind what stands nearer', async () => {
    const { renderer } = spyRenderer();
    const far = after(SMOKY, setDrift('Far', 'd', { foot: { u: 0.5, v: 0.52 }, at: { u: 0.5, v: 0.9 } }));
    const [hidden, clear] = [await show(renderer, far), await show(renderer, CLEAR)];
    expect(luminanceAt(hidden, 0.5, 0.95)).toBe(luminanceAt(clear, 0.5, 0.95));
  });
});
