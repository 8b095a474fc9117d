import { describe, expect, it } from 'vitest';
import { addFixture } from '@/core/scene/fixture-commands';
import { setDesk, setNight } from '@/core/scene/commands';
import { raiseMoon, setSky, setSkyPart } from '@/core/scene/sky-commands';
import type { Command } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';
import { wholeRegion } from '@/core/plane/region';
import { after, largestDifference, luminanceAt, show, spyRenderer } from '../../test/spy-renderer';
import { streetLamp, streetScene, testCircuit } from '../../test/street';

const SCENE = streetScene([streetLamp('one', 0.5)]);
const with_ = (scene: Scene, ...commands: Command[]) => commands.reduce((now, one) => after(now, one), scene);
const CLOUDED = with_(
  SCENE,
  setSkyPart('Clouds', 'clouds', { cover: 0.6, height: 400 }),
  raiseMoon({ azimuth: 4, elevation: 18 }),
);
const PICTURE = {
  ...{ asset: 'b'.repeat(64), name: 'dusk', width: 240, height: 160, at: { u: 0.5, v: 0.1 } },
  ...{ across: 1.2, turn: 0, share: 1, exposure: 0, fit: 0.6 },
};

describe('the sky in the renderer', () => {
  it('stands behind the skyline, and changes no land', async () => {
    const { renderer } = spyRenderer();
    const own = await show(renderer, after(SCENE, setSky('Own', { from: 'plate' })));
    const [bright, dark] = [
      await show(renderer, after(SCENE, setDesk('Sky', { sky: 2 }))),
      await show(renderer, after(SCENE, setDesk('Sky', { sky: -10 }))),
    ];
    expect(luminanceAt(bright, 0.2, 0.1)).toBeGreaterThan(luminanceAt(dark, 0.2, 0.1) + 40);
    expect(luminanceAt(dark, 0.2, 0.1)).toBeLessThan(14);
    for (const v of [0.45, 0.7, 0.95]) {
      expect(luminanceAt(bright, 0.3, v)).toBe(luminanceAt(dark, 0.3, v));
      expect(Math.abs(luminanceAt(bright, 0.3, v) - luminanceAt(own, 0.3, v))).toBeLessThan(12);
    }
  });

  it('is the brightest large thing at blue hour, and darker than lit ground by deep night', async () => {
    const { renderer } = spyRenderer();
    const at = (hour: number, exposure: number) =>
      show(renderer, after(SCENE, setNight('Hour', { hour, exposure, haze: 0 })));
    const [blue, deep] = [await at(0.44, -2.8), await at(1, -5.8)];
    expect(luminanceAt(blue, 0.1, 0.1)).toBeGreaterThan(luminanceAt(blue, 0.1, 0.5) + 20);
    expect(luminanceAt(deep, 0.1, 0.1)).toBeLessThan(luminanceAt(deep, 0.5, 0.8));
  });

  it('is on the screen what it is in the output: a fine frame shrunk is a small one', async () => {
    const { renderer } = spyRenderer();
    const small = await show(renderer, CLOUDED, wholeRegion(120, 80));
    const large = await show(renderer, CLOUDED, wholeRegion(240, 160));
    let most = 0;
    for (let y = 2; y < 78; y++)
      for (let x = 2; x < 118; x++)
        for (let c = 0; c < 3; c++) {
          const of = (dx: number, dy: number) => large[4 * ((2 * y + dy) * 240 + 2 * x + dx) + c];
          const mean = (of(0, 0) + of(1, 0) + of(0, 1) + of(1, 1)) / 4;
          // At the skyline and on the moon's limb sizes differ by what a pixel holds.
          if (y < 20) most = Math.max(most, Math.abs(mean - small[4 * (y * 120 + x) + c]));
        }
    expect(most).toBeLessThan(40);
  });

  it('makes nothing but the sum anew for a lamp’s fader, and what is behind too where clouds are lit by it', async () => {
    const { renderer, tasks } = spyRenderer();
    const dim = (scene: Scene, level: number) => ({
      ...scene,
      circuits: scene.circuits.map((circuit) => ({ ...circuit, level })),
    });
    for (const [scene, stages] of [
      [SCENE, ['sum', 'film']],
      [CLOUDED, ['behind', 'sum', 'film']],
    ] as const) {
      await show(renderer, scene);
      tasks.length = 0;
      await show(renderer, dim(scene, -1));
      expect(new Set(tasks)).toEqual(new Set(stages));
    }
  });

  it('lets clouds take the colour of what burns below, on its fader', async () => {
    const { renderer } = spyRenderer();
    const red = {
      ...streetLamp('red', 0.5, { lumens: 60000 }),
      gel: { from: 'picture' as const, kelvin: 2000, color: [3, 0.1, 0.1] as [number, number, number] },
    };
    const scene = with_(
      { ...SCENE, fixtures: [], night: { ...SCENE.night, haze: 0 } },
      addFixture(red, testCircuit('street')),
      setSkyPart('Clouds', 'clouds', { cover: 1, under: 4 }),
    );
    const redness = async (level: number) => {
      const dimmed = { ...scene, circuits: scene.circuits.map((circuit) => ({ ...circuit, level })) };
      const codes = await show(renderer, dimmed);
      const at = 4 * (10 * 240 + 40);
      return codes[at] - codes[at + 2];
    };
    expect(await redness(0)).toBeGreaterThan((await redness(-6)) + 20);
  });

  it('strikes bolts behind what stands nearer, on a circuit that fades', async () => {
    const { renderer } = spyRenderer();
    const bolt = streetLamp('bolt', 0.3, {
      kind: 'bolt',
      circuit: 'storm',
      path: [
        { u: 0.3, v: 0.02 },
        { u: 0.32, v: 0.5 },
      ],
      ...{ at: { u: 0.31, v: 0.26 }, foot: { u: 0.32, v: 0.502 }, aim: { u: 0.32, v: 0.502 }, size: 0.002 },
      ...{ lumens: 4000, forks: 0, jagged: 0, above: 0.5, fade: 0.1, patch: 0, seed: 1 },
    });
    const scene = after(SCENE, addFixture(bolt, testCircuit('storm')));
    const without = await show(renderer, SCENE);
    const lit = await show(renderer, scene);
    const at = (v: number) => luminanceAt(lit, 0.3 + 0.02 * ((v - 0.02) / 0.48), v);
    expect(at(0.2)).toBeGreaterThan(luminanceAt(without, 0.307, 0.2) + 60);
    // The front hides it.
    expect(at(0.45) - luminanceAt(without, 0.318, 0.45)).toBeLessThan(30);
    const out = {
      ...scene,
      circuits: scene.circuits.map((own) => ({ ...own, level: own.id === 'storm' ? -10 : 0 })),
    };
    expect(largestDifference(await show(renderer, out), without)).toBeLessThanOrEqual(1);
  });

  it('lays a picture over the hour’s sky, and needs its file', async () => {
    const { renderer } = spyRenderer();
    const plain = await show(renderer, SCENE);
    const laid = after(SCENE, setSky('Picture', { picture: PICTURE }));
    const codes = await show(renderer, laid);
    expect(largestDifference(codes, plain)).toBeGreaterThan(3);
    expect(luminanceAt(codes, 0.3, 0.8)).toBe(luminanceAt(plain, 0.3, 0.8));
    const hidden = after(laid, setSky('Picture', { picture: { ...PICTURE, share: 0 } }));
    expect(largestDifference(await show(renderer, hidden), plain)).toBeLessThanOrEqual(1);
  });

  it('lights the land by the moon’s phase', async () => {
    const { renderer } = spyRenderer();
    const scene = with_(
      streetScene([]),
      raiseMoon({ azimuth: 150, elevation: 50 }),
      setDesk('Moon', { moon: 4 }),
    );
    const ground = async (phase: number) =>
      luminanceAt(await show(renderer, after(scene, setSkyPart('Moon', 'moon', { phase }))), 0.5, 0.9);
    expect(await ground(0.5)).toBeGreaterThan((await ground(0.25)) + 5);
    expect(await ground(0.25)).toBeGreaterThanOrEqual(await ground(0));
  });

  it('is a picture at every odd setting', async () => {
    const { renderer } = spyRenderer();
    const odd: Command[][] = [
      [
        setSkyPart('s', 'stars', { from: 'true' }),
        setSkyPart('w', 'when', { latitude: 90, moment: '1600-01-01T00:00Z' }),
      ],
      [setSkyPart('s', 'stars', { trail: 240, faintest: 8 })],
      [raiseMoon({ azimuth: 180, elevation: 1 }), setSkyPart('m', 'moon', { size: 12, phase: 0 })],
      [
        setSkyPart('c', 'clouds', { cover: 1, height: 100, size: 0.2, soft: 0 }),
        setNight('h', { hour: 1, haze: 1 }),
      ],
      [setSky('p', { picture: { ...PICTURE, across: 8, turn: 180, at: { u: -4, v: 5 } } })],
    ];
    for (const commands of odd) {
      const codes = await show(renderer, with_(SCENE, ...commands));
      expect(luminanceAt(codes, 0.5, 0.6)).toBeGreaterThan(0);
    }
  });
});
