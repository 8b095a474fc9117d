import { builtScene } from '../../test/built-scene';
import { describe, expect, it } from 'vitest';
import { setNight } from '@/core/scene/commands';
import { setSky } from '@/core/scene/sky-commands';
import { setCircuit } from '@/core/scene/fixture-commands';
import { PLAIN_FINISH, PLAIN_GRIP, PLAIN_SURFACE } from '@/core/scene/new-scene';
import type { FixtureValues, Scene } from '@/core/scene/schema';
import { tonesBeneath } from './readouts/beneath';
import type { Renderer } from './renderer';
import { wholeRegion } from '@/core/plane/region';
import { circuitLight } from './readouts/circuit';
import { landOf } from './readouts/land';
import { toneRangeOf } from './readouts/tone-range';
import { stopsTooBrightIn } from './readouts/too-bright';
import type { LightParts } from '@/core/picture/circuit-light';
import { STREET, streetLamp, streetScene, testCircuit } from '../../test/street';
import {
  after,
  half,
  largestDifference,
  luminanceAt,
  NEVER,
  placed,
  SCENE,
  show,
  spyRenderer,
  WHOLE,
} from '../../test/spy-renderer';

/** Half as wide and high as the street: what runs without kernels takes its time. */
const SMALL = wholeRegion(120, 80);

describe('light in the renderer', () => {
  it('holds a lamp back behind a matte, and its spill inside or outside of one', async () => {
    const { renderer, tasks } = spyRenderer();
    const lit = (more: FixtureValues) => ({
      ...placed({}),
      places: [],
      ...(({ fixtures, circuits }) => ({ fixtures, circuits }))(streetScene([streetLamp('l', 0.4, more)])),
    });
    const free = await show(renderer, lit({}));
    const dark = await show(renderer, { ...lit({}), fixtures: [], circuits: [] });
    const gain = (pixels: Uint8ClampedArray, u: number, v: number) =>
      (luminanceAt(pixels, u, v) - luminanceAt(dark, u, v)) /
      (luminanceAt(free, u, v) - luminanceAt(dark, u, v));
    const hidden = await show(renderer, lit({ behind: 'half' }));
    expect(gain(hidden, 0.4, 0.35)).toBeLessThan(0.3);
    expect(gain(hidden, 0.6, 0.8)).toBeCloseTo(1, 1);
    const inside = await show(renderer, lit({ only: { matte: 'half', outside: false } }));
    expect(gain(inside, 0.35, 0.8)).toBeCloseTo(1, 1);
    expect(gain(inside, 0.6, 0.8)).toBeLessThan(0.2);
    tasks.length = 0;
    const outside = await show(renderer, lit({ only: { matte: 'half', outside: true } }));
    expect(gain(outside, 0.35, 0.8)).toBeLessThan(0.2);
    expect(gain(outside, 0.6, 0.8)).toBeCloseTo(1, 1);
    expect(gain(outside, 0.4, 0.35)).toBeGreaterThan(0.9);
    expect(tasks).not.toContain('lamps');
  });

  it('is steady: the foot of a window in a far wall, moved pixel by pixel, moves the light no further', async () => {
    const { renderer } = spyRenderer();
    const corners = [
      [0.57, 0.38],
      [0.62, 0.38],
      [0.62, 0.44],
      [0.57, 0.44],
    ].map(([u, v]) => ({ u, v }));
    const foot = [
      { u: 0, v: 0.9 },
      { u: 0.8, v: 0.56 },
    ];
    const wall = { id: 'w', name: 'W', foot, height: 9, ...PLAIN_SURFACE };
    const window = (v: number) =>
      streetLamp('p', 0.595, { kind: 'pane', path: corners, foot: { u: 0.595, v }, lumens: 300 });
    const means: number[] = [];
    for (let row = 97; row <= 110; row += 0.5) {
      const scene = streetScene([window(row / STREET.height)]);
      const pixels = await show(renderer, { ...scene, plan: { ...scene.plan, walls: [wall] } });
      means.push(pixels.reduce((sum, code) => sum + code, 0) / pixels.length);
    }
    for (const [i, mean] of means.slice(1).entries())
      expect(Math.abs(mean / means[i] - 1)).toBeLessThan(0.08);
  });

  it('gives the linear light of a circuit alone, whatever burns, in parts that add up', async () => {
    const { renderer } = spyRenderer();
    const lamps = [streetLamp('l', 0.3), streetLamp('r', 0.7, { circuit: 'other' })];
    const circuits = ['street', 'other'].map((id) => testCircuit(id, { muted: id === 'street' }));
    const scene = { ...streetScene(lamps), circuits };
    const light = (id: string, parts: Partial<LightParts>, of: Scene = scene) =>
      renderer.read(
        circuitLight({ scene: of, region: WHOLE }, id, { spill: false, air: false, source: false, ...parts }),
        NEVER,
      );
    const whole = await light('street', { spill: true, air: true, source: true });
    const parts = [
      await light('street', { spill: true }),
      await light('street', { air: true }),
      await light('street', { source: true }),
    ];
    const ground = Math.floor(0.75 * 160) * 240 + 72;
    expect(parts[0].r[ground]).toBeGreaterThan(0);
    whole.r.forEach((value, i) =>
      expect(value).toBeCloseTo(parts[0].r[i] + parts[1].r[i] + parts[2].r[i], 4),
    );
    const other = await light('other', { spill: true });
    expect(other.r[ground]).toBeLessThan(parts[0].r[ground]);
    const raised = after(scene, setCircuit('level', 'street', { level: 1 }));
    const doubled = await light('street', { spill: true }, raised);
    expect(doubled.g[ground] / parts[0].g[ground]).toBeCloseTo(2, 4);
  });

  it('throws the shadow of a wall and of a standee, and keeps the sky out of it', async () => {
    const { renderer } = spyRenderer();
    const lamp = streetLamp('l', 0.5, { foot: { u: 0.5, v: 0.66 } });
    const base = { ...streetScene([lamp]), mattes: [half] };
    const wall = {
      id: 'w',
      name: 'Wall',
      foot: [
        { u: 0.2, v: 0.72 },
        { u: 0.8, v: 0.72 },
      ],
      height: 1,
      ...PLAIN_SURFACE,
    };
    const standee = {
      ...{ id: 's', name: 'Half', matte: 'half', foot: { u: 0.25, v: 0.72 } },
      ...{ roundness: 0, crease: 0, ...PLAIN_FINISH },
    };
    const spill = (plan: Partial<Scene['plan']>) =>
      renderer.read(
        circuitLight({ scene: { ...base, plan: { ...base.plan, ...plan } }, region: WHOLE }, 'street', {
          spill: true,
          air: false,
          source: false,
        }),
        NEVER,
      );
    const at = (light: { g: Float32Array }, u: number, v: number) =>
      light.g[Math.floor(v * 160) * 240 + Math.floor(u * 240)];
    const [open, walled, stood] = [
      await spill({}),
      await spill({ walls: [wall] }),
      await spill({ standees: [standee] }),
    ];
    expect(at(walled, 0.5, 0.76)).toBeLessThan(0.2 * at(open, 0.5, 0.76));
    expect(at(walled, 0.5, 0.99)).toBeGreaterThan(0.8 * at(open, 0.5, 0.99));
    expect(at(stood, 0.4, 0.9)).not.toBeCloseTo(at(open, 0.4, 0.9), 3);
    for (const light of [open, walled, stood]) expect(at(light, 0.5, 0.1)).toBe(0);
  });

  it.each([
    ['whole walls', undefined, PLAIN_SURFACE],
    ['walls that end at a matte', 'half', PLAIN_SURFACE],
    ['surfaces that shine', 'half', { sheen: 0.7, roughness: 0.25, crease: 0.3, wet: 'half' }],
  ])(
    'casts all shadows, of every kind of light and %s, with kernels as with their twins',
    async (_, until, finish) => {
      const built = builtScene(finish);
      const walls = built.plan.walls.map((wall) => ({ ...wall, until }));
      const gloss = { id: 'g', name: 'Glass', matte: 'half', turn: 10, lean: 50, roundness: 0.2 };
      const glosses = finish.sheen > 0 ? [{ ...gloss, sheen: 0.8, roughness: 0.3 }] : [];
      const scene = { ...built, plan: { ...built.plan, walls, glosses } };
      const seen = (renderer: Renderer, of: Scene) => show(renderer, of, SMALL);
      const fast = await seen(spyRenderer(true).renderer, scene);
      expect(largestDifference(fast, await seen(spyRenderer(false).renderer, scene))).toBeLessThanOrEqual(1);
      const bare = { ...scene, plan: { ...scene.plan, walls: [], decks: [], standees: [] } };
      expect(largestDifference(fast, await seen(spyRenderer().renderer, bare))).toBeGreaterThan(10);
    },
  );

  it('shows a lamp in wet ground only where it is wet, and takes as much off what lights the plate', async () => {
    const { renderer } = spyRenderer();
    const base = builtScene();
    const lit = async (ground: Partial<Scene['plan']['ground']>) => {
      const plan = { ...base.plan, walls: [], decks: [], standees: [], sunShadow: undefined };
      // At the eye's own height, its mirror image lies halfway to its foot.
      const fixtures = [streetLamp('globe', 0.3, { at: { u: 0.3, v: 0.5 }, foot: { u: 0.3, v: 0.56 } })];
      const scene = { ...base, fixtures, plan: { ...plan, ground: { ...PLAIN_SURFACE, ...ground } } };
      const spill = { spill: true, air: false, source: false };
      return (await renderer.read(circuitLight({ scene, region: WHOLE }, 'street', spill), NEVER)).g;
    };
    const nearest = (u: number) => Math.floor(0.97 * 160) * 240 + Math.floor(u * 240);
    const [dry, wet, half] = [
      await lit({}),
      await lit({ sheen: 1, roughness: 0.05 }),
      await lit({ sheen: 1, roughness: 0.05, wet: 'half' }),
    ];
    // The matte covers the left; far off the mirror's way nothing is left of the light.
    expect(wet[nearest(0.05)]).toBeLessThan(0.2 * dry[nearest(0.05)]);
    expect(half[nearest(0.05)]).toBeCloseTo(wet[nearest(0.05)], 5);
    expect(half[nearest(0.95)]).toBeCloseTo(dry[nearest(0.95)], 5);
    const image = Math.floor(0.62 * 160) * 240 + Math.floor(0.3 * 240);
    expect(wet[image]).toBeGreaterThan(2 * dry[image]);
  });

  it('ends a wall at a matte', async () => {
    const { renderer } = spyRenderer();
    const scene = builtScene();
    const ended = (until?: string): Scene => {
      const walls = scene.plan.walls.map((wall) => ({ ...wall, until }));
      return { ...scene, plan: { ...scene.plan, standees: [], decks: [], walls } };
    };
    const [whole, halved] = [
      await renderer.read(landOf(ended()), NEVER),
      await renderer.read(landOf(ended('half')), NEVER),
    ];
    const at = ({ reach, width, height }: typeof whole, u: number) =>
      reach[Math.floor(0.6 * height) * width + Math.floor(u * width)];
    expect(at(halved, 0.3)).toBe(at(whole, 0.3));
    expect(at(halved, 0.7)).not.toBeCloseTo(at(whole, 0.7), 2);
  });

  it('lets dark parts take less of a circuit than bright ones, without computing its light anew', async () => {
    const { renderer, tasks } = spyRenderer();
    const spill = { spill: true, air: false, source: false };
    const lit = async (grip: Partial<Scene['circuits'][number]['grip']>) => {
      const circuits = [testCircuit('street', { grip: { ...PLAIN_GRIP, ...grip } })];
      return (
        await renderer.read(
          circuitLight({ scene: { ...SCENE, circuits }, region: WHOLE }, 'street', spill),
          NEVER,
        )
      ).g;
    };
    const plain = await lit({});
    tasks.length = 0;
    const held = await lit({ dark: 0, bright: 0.01, darkShare: 1, brightShare: 0.5 });
    expect(tasks.filter((task) => task === 'lamps')).toEqual([]);
    const i = Math.floor(0.8 * STREET.height) * STREET.width + Math.floor(0.3 * STREET.width);
    expect(held[i] / plain[i]).toBeCloseTo(0.5, 3);
    const shares = await renderer.read(tonesBeneath(SCENE, 'street'), NEVER);
    expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 4);
    // The paving's own tone is the one on which most of it lands.
    const most = shares.indexOf(Math.max(...shares)) / shares.length;
    expect(most).toBeGreaterThan(0.5);
    expect(most).toBeLessThan(0.68);
  });

  it('brings up the moon by its own fader, which neither solo nor master dims', async () => {
    const { renderer } = spyRenderer();
    const base = after(streetScene([]), setNight('Haze', { haze: 0, hour: 1 }));
    const moonlit = (level: number, more: Partial<Scene> = {}) =>
      show(renderer, { ...base, ...more, desk: { ...base.desk, moon: level } });
    const [dark, up] = [await moonlit(-10), await moonlit(0)];
    expect(luminanceAt(up, 0.5, 0.9)).toBeGreaterThan(luminanceAt(dark, 0.5, 0.9) + 8);
    expect(luminanceAt(up, 0.5, 0.1)).toBeCloseTo(luminanceAt(dark, 0.5, 0.1), 0);
    const low = await moonlit(0, { moon: { azimuth: -120, elevation: 5, kelvin: 4150 } });
    expect(luminanceAt(low, 0.5, 0.9)).toBeLessThan(luminanceAt(up, 0.5, 0.9));
  });

  it('lifts the sun’s shadow out of what lamps light', async () => {
    const { renderer } = spyRenderer();
    const lifted = (lift: number): Scene => ({
      ...SCENE,
      mattes: [half],
      plan: { ...SCENE.plan, sunShadow: { matte: 'half', lift } },
    });
    const [asItIs, whole] = [await show(renderer, lifted(0)), await show(renderer, lifted(1))];
    // Both halves of the street are alike: there is nothing to lift.
    expect(largestDifference(asItIs, whole)).toBeLessThan(12);
    expect(renderer.isReady({ scene: lifted(1), region: WHOLE })).toBe(true);
    expect(renderer.isReady({ scene: lifted(0.4), region: WHOLE })).toBe(false);
  });

  it('lights a wall in the day’s shade as one that the sun shines on, and lays the land no anew for it', async () => {
    const { renderer, tasks } = spyRenderer();
    const foot = [
      { u: 0, v: 0.6 },
      { u: 0.45, v: 0.58 },
    ];
    const shaded = (dayShade?: number): Scene => {
      const wall = { id: 'w', name: 'Row', foot, height: 6, ...PLAIN_SURFACE, dayShade };
      return { ...SCENE, plan: { ...SCENE.plan, walls: [wall] } };
    };
    const asItIs = await show(renderer, shaded());
    tasks.length = 0;
    const lifted = await show(renderer, shaded(2));
    expect(tasks).not.toContain('relief');
    const [onWall, beside] = [
      [0.3, 0.45],
      [0.7, 0.45],
    ].map(([u, v]) => luminanceAt(lifted, u, v) - luminanceAt(asItIs, u, v));
    expect(onWall).toBeGreaterThan(15);
    expect(Math.abs(beside)).toBeLessThan(6);
    expect(largestDifference(asItIs, await show(renderer, shaded(0)))).toBe(0);
  });

  it('measures the tones of a night before it is refitted', async () => {
    const { renderer } = spyRenderer();
    const stretched = after(SCENE, setNight('Refit', { refit: { always: false, low: 0.1, high: 0.2 } }));
    const { low, high } = await renderer.read(toneRangeOf(SCENE), NEVER);
    expect(await renderer.read(toneRangeOf(stretched), NEVER)).toEqual({ low, high });
    expect(low).toBeLessThan(high);
    const codes = await show(
      renderer,
      after(after(streetScene([]), setNight('Haze', { haze: 0 })), setSky('Sky', { from: 'plate' })),
    );
    expect(255 * high).toBeCloseTo(Math.max(...[0.1, 0.5, 0.8].map((v) => luminanceAt(codes, 0.5, v))), -1.3);
  });

  it('measures how much too bright is what burns: as much as its light, and nothing without any', async () => {
    const { renderer } = spyRenderer();
    const stops = (lumens: number, exposure = SCENE.night.exposure) =>
      renderer.read(
        stopsTooBrightIn(
          after(
            streetScene(lumens > 0 ? [streetLamp('l', 0.4, { lumens })] : []),
            setNight('', { exposure }),
          ),
        ),
        NEVER,
      );
    const lit = await stops(400_000);
    expect(lit).toBeGreaterThan(1);
    expect(await stops(800_000)).toBeCloseTo(lit + 1, 3);
    expect(await stops(400_000, SCENE.night.exposure - 0.5)).toBeCloseTo(lit - 0.5, 3);
    expect(await stops(0)).toBe(0);
    // The day itself, which nothing burns in, is not too bright.
    expect(await stops(0, 2)).toBe(0);
  });
});
