import { describe, expect, it } from 'vitest';
import { setCircuit, setFixture, setNight, setPlan } from '@/core/scene/commands';
import { runCommand, type Command } from '@/core/scene/command';
import { parseCube, type CubeLut } from '@/core/grade/cube-lut';
import { PLAIN_FINISH, PLAIN_GRIP, PLAIN_SURFACE } from '@/core/scene/new-scene';
import { PLAIN_GRADE } from '@/core/night/starting-night';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { Pass } from '@/core/matte/pass';
import type { Fixture, Matte, Night, Place, Scene } from '@/core/scene/schema';
import { isAbort } from './aborted';
import { createArena } from './arena';
import { createDirectPool } from './direct-pool';
import type { FrameRequest } from './frame-request';
import { createKernels, KERNEL_SCRATCH } from './kernels';
import { createNodePool, loadKernels } from './node-pool';
import type { Pool } from './pool';
import { createRenderer, type Renderer } from './renderer';
import type { LightParts } from '@/core/picture/circuit-light';
import type { Task } from './task';
import { STREET, streetAssets, streetCodes, streetLamp, streetScene, testCircuit } from '../../test/street';

const MEBIBYTE = 2 ** 20;
const NEVER = new AbortController().signal;
const WHOLE = wholeRegion(STREET.width, STREET.height);
const SCENE = streetScene([streetLamp('left', 0.3), streetLamp('right', 0.7, { lumens: 1200 })]);

type Spy = { renderer: Renderer; tasks: Task['type'][]; used: () => number };

/** A renderer on this thread that notes which tasks it was given. */
function spyRenderer(withKernels = true, budget = 64 * MEBIBYTE, lut?: CubeLut): Spy {
  const arena = createArena(256 * MEBIBYTE);
  const scratch = arena.allocate(KERNEL_SCRATCH).offset;
  const kernels = withKernels ? createKernels(loadKernels(), arena.memory, scratch) : undefined;
  const direct = createDirectPool(arena.memory, kernels);
  const tasks: Task['type'][] = [];
  const pool: Pool = {
    ...direct,
    run: (task, signal) => {
      tasks.push(task.type);
      return direct.run(task, signal);
    },
  };
  const renderer = createRenderer(arena, pool, streetAssets(lut), budget);
  return { renderer, tasks, used: arena.used };
}

const show = (renderer: Renderer, scene: Scene, region: Region = WHOLE, moving?: string) =>
  renderer.frame({ scene, region, moving }, NEVER, (pixels) => pixels.slice());

const after = (scene: Scene, command: Command) => runCommand(scene, command).scene;

function largestDifference(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  expect(a.length).toBe(b.length);
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i])), 0);
}

const luminanceAt = (pixels: Uint8ClampedArray, u: number, v: number) => {
  const i = 4 * (Math.floor(v * STREET.height) * STREET.width + Math.floor(u * STREET.width));
  return 0.21 * pixels[i] + 0.72 * pixels[i + 1] + 0.07 * pixels[i + 2];
};

describe('renderer', () => {
  it('lights the ground near the foot and leaves the sky alone', async () => {
    const { renderer } = spyRenderer();
    const dark = await show(renderer, streetScene([]));
    const lit = await show(renderer, after(SCENE, setNight('Haze', { haze: 0 })));
    const darkNoHaze = await show(renderer, after(streetScene([]), setNight('Haze', { haze: 0 })));
    expect(luminanceAt(lit, 0.3, 0.8)).toBeGreaterThan(luminanceAt(dark, 0.3, 0.8) + 30);
    expect(luminanceAt(lit, 0.5, 0.05)).toBeCloseTo(luminanceAt(darkNoHaze, 0.5, 0.05), 0);
  });

  it('is the same with kernels as with their twins', async () => {
    const fast = await show(spyRenderer(true).renderer, SCENE);
    const plain = await show(spyRenderer(false).renderer, SCENE);
    expect(largestDifference(fast, plain)).toBeLessThanOrEqual(1);
  });

  const { shape, byTone, surround } = PLAIN_GRADE;
  const curve = [
    { x: 0, y: 0.03 },
    { x: 0.3, y: 0.2 },
    { x: 1, y: 0.9 },
  ];
  const swirl = parseCube(
    [
      'LUT_3D_SIZE 2',
      ...Array.from({ length: 8 }, (_, i) => `${(i >> 1) & 1} ${0.8 * (i & 1)} ${i >> 2}`),
    ].join('\n'),
  );
  const warmer = parseCube('LUT_1D_SIZE 3\nDOMAIN_MAX 0.5 0.5 0.5\n0 0 0\n0.4 0.2 0.1\n1 0.6 0.5');
  const lut = { asset: '7'.repeat(64), name: 'made up', strength: 0.7 };
  const grades: [string, Partial<Night>, CubeLut?][] = [
    ['a curve on luminance', { shape: { ...shape, black: 0.05, middle: 0.3, ceiling: 0.6, points: curve } }],
    ['a curve on the channels', { shape: { ...shape, on: 'colour', points: curve } }],
    [
      'colour by tone, refitted',
      { byTone: { ...byTone, strength: 0.6 }, refit: { always: true, low: 0, high: 1 } },
    ],
    ['a cube', { lut }, swirl],
    ['three curves', { lut: { ...lut, strength: 1 } }, warmer],
    ['surroundings and haze', { surround: { ...surround, stops: 3, lamps: 1 }, haze: 1, hazeGlow: 1 }],
    ['an evened plate', { evenOut: 0.7 }],
  ];

  it.each(grades)('shows %s with kernels as with their twins', async (_name, night, table) => {
    const scene = after(SCENE, setNight('Grade', night));
    const fast = await show(spyRenderer(true, 64 * MEBIBYTE, table).renderer, scene);
    const plain = await show(spyRenderer(false, 64 * MEBIBYTE, table).renderer, scene);
    expect(largestDifference(fast, plain)).toBeLessThanOrEqual(1);
    expect(largestDifference(fast, await show(spyRenderer().renderer, SCENE))).toBeGreaterThan(1);
  });

  it('computes nothing but night and mix anew for a control of the night, and keeps only the last', async () => {
    const { renderer, tasks, used } = spyRenderer();
    const at = (exposure: number) => after(SCENE, setNight('Exposure', { exposure }));
    await show(renderer, at(-3));
    const before = used();
    tasks.length = 0;
    for (let i = 1; i < 6; i++) {
      expect(renderer.isReady({ scene: at(-3 - i / 10), region: WHOLE })).toBe(true);
      await show(renderer, at(-3 - i / 10));
    }
    expect(new Set(tasks)).toEqual(new Set(['night', 'mix']));
    expect(used()).toBe(before);
  });

  const half: Matte = {
    id: 'half',
    name: 'Half',
    refine: 0,
    grow: 0,
    feather: 0,
    invert: false,
    passes: [
      {
        id: 'p',
        join: 'add',
        kind: 'outline',
        points: [
          { u: 0, v: 0 },
          { u: 0.5, v: 0 },
          { u: 0.5, v: 1 },
          { u: 0, v: 1 },
        ],
      },
    ],
  };
  const placed = (matte: Partial<Matte>, place: Partial<Place> = {}): Scene => ({
    ...streetScene([]),
    mattes: [{ ...half, ...matte }],
    places: [{ matte: 'half', outside: false, stops: -3, ...place }],
  });

  it('lowers the night inside a matte or outside of it, sharply or softly', async () => {
    const { renderer, tasks } = spyRenderer();
    const plain = await show(renderer, streetScene([]));
    const inside = await show(renderer, placed({}));
    const ratio = (pixels: Uint8ClampedArray, u: number) =>
      luminanceAt(pixels, u, 0.8) / luminanceAt(plain, u, 0.8);
    expect(ratio(inside, 0.2)).toBeLessThan(0.5);
    expect(ratio(inside, 0.8)).toBe(1);
    const outside = await show(renderer, placed({}, { outside: true }));
    expect([ratio(outside, 0.2), ratio(outside, 0.8) < 0.5]).toEqual([1, true]);
    expect(largestDifference(await show(renderer, placed({ invert: true })), outside)).toBe(0);
    const soft = await show(renderer, placed({ feather: 0.1 }));
    expect(ratio(soft, 0.49)).toBeGreaterThan(ratio(inside, 0.49) + 0.05);
    expect(ratio(soft, 0.51)).toBeLessThan(0.98);
    tasks.length = 0;
    await show(renderer, placed({ feather: 0.1 }, { stops: -2 }));
    expect(new Set(tasks)).toEqual(new Set(['surround', 'place', 'night', 'mix']));
  });

  it('finds the sky and areas the same at any size, and shows a matte over the picture', async () => {
    const { renderer } = spyRenderer();
    const area = {
      id: 'a',
      join: 'add',
      kind: 'area',
      at: { u: 0.5, v: 0.8 },
      tolerance: 0.12,
      connected: true,
    } as const;
    for (const [pass, inside, without] of [
      [{ id: 's', join: 'add', kind: 'sky' } as const, 0.1, 0.8],
      [area, 0.8, 0.1],
    ] as const) {
      const scene = placed({ passes: [pass] });
      for (const scale of [1, 2]) {
        const region = wholeRegion(STREET.width * scale, STREET.height * scale);
        const show = { matte: 'half', view: 'grey' } as const;
        const codes = await renderer.frame({ scene, region, show }, NEVER, (pixels) => pixels.slice());
        const at = (v: number) =>
          codes[4 * (Math.floor(v * region.height) * region.width + region.width / 2)];
        expect(at(inside)).toBeGreaterThan(240);
        expect(at(without)).toBeLessThan(15);
      }
    }
  });

  const covered = async (renderer: Renderer, scene: Scene, scale = 1) => {
    const region = wholeRegion(STREET.width * scale, STREET.height * scale);
    const request: FrameRequest = { scene, region, show: { matte: 'half', view: 'grey' } };
    const codes = await renderer.frame(request, NEVER, (pixels) => pixels.slice());
    return (u: number, v = 0.8) =>
      codes[4 * (Math.floor(v * region.height) * region.width + Math.floor(u * region.width))] / 255;
  };

  it('grows, refines and joins mattes of every kind alike in preview and output', async () => {
    const { renderer } = spyRenderer();
    const edge: Pass = { id: 'e', join: 'add', kind: 'edge', strokes: [], asset: '7'.repeat(64) };
    const paint: Pass = {
      id: 'b',
      join: 'add',
      kind: 'paint',
      strokes: [
        {
          path: [0.75, 0.2, 1, 0.75, 0.9, 1],
          size: 0.05,
          soft: 0.3,
          flow: 1,
          strength: 1,
          erase: false,
          pressure: 'none',
        },
      ],
    };
    const other: Matte = { ...half, id: 'other', passes: [paint], invert: true };
    const cases: [string, Partial<Matte>, inside: number, outside: number][] = [
      ['the edge brush', { passes: [edge] }, 0.4, 0.6],
      ['paint', { passes: [paint] }, 0.75, 0.6],
      ['another matte', { passes: [{ id: 'o', join: 'add', kind: 'matte', matte: 'other' }] }, 0.6, 0.75],
      [
        'one cut by another',
        { passes: [edge, { id: 'o', join: 'meet', kind: 'matte', matte: 'other' }] },
        0.4,
        0.75,
      ],
      ['grown', { grow: 0.03 }, 0.52, 0.54],
      ['shrunk', { grow: -0.03 }, 0.46, 0.48],
      ['refined', { passes: [edge], refine: 0.02 }, 0.3, 0.7],
      ['grown and softened', { grow: 0.03, feather: 0.008 }, 0.5, 0.56],
    ];
    for (const [name, matte, inside, outside] of cases) {
      const scene = { ...placed(matte), mattes: [{ ...half, ...matte }, other] };
      for (const scale of [1, 2]) {
        const at = await covered(renderer, scene, scale);
        expect([name, at(inside) > 0.9, at(outside) < 0.1]).toEqual([name, true, true]);
      }
      const band = { ...WHOLE, top: 96, height: 40 };
      const show = { matte: 'half', view: 'grey' } as const;
      const part = await renderer.frame({ scene, region: band, show }, NEVER, (pixels) => pixels.slice());
      const whole = await renderer.frame({ scene, region: WHOLE, show }, NEVER, (pixels) => pixels.slice());
      const rows = whole.slice(4 * 96 * WHOLE.width, 4 * 136 * WHOLE.width);
      expect([name, largestDifference(part, rows) <= 2]).toEqual([name, true]);
    }
  });

  it('holds a lamp back behind a matte, and its spill inside or outside of one', async () => {
    const { renderer, tasks } = spyRenderer();
    const lit = (more: Partial<Fixture>) => ({
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
    expect(tasks).not.toContain('layer');
  });

  it('gives the linear light of a circuit alone, whatever burns, in parts that add up', async () => {
    const { renderer } = spyRenderer();
    const lamps = [streetLamp('l', 0.3), streetLamp('r', 0.7, { circuit: 'other' })];
    const circuits = ['street', 'other'].map((id) => testCircuit(id, { muted: id === 'street' }));
    const scene = { ...streetScene(lamps), circuits };
    const light = (id: string, parts: Partial<LightParts>, of: Scene = scene) =>
      renderer.circuit(
        { scene: of, region: WHOLE },
        id,
        { spill: false, air: false, source: false, ...parts },
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
      renderer.circuit(
        { scene: { ...base, plan: { ...base.plan, ...plan } }, region: WHOLE },
        'street',
        { spill: true, air: false, source: false },
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

  /** A scene with a wall, a deck over it, a standee and a lamp of every kind. */
  function builtScene(finish = PLAIN_SURFACE as Scene['plan']['ground']): Scene {
    const { crease, ...shine } = finish;
    const place = (u: number, v: number) => ({ u, v });
    const wall = {
      id: 'w',
      name: 'Wall',
      foot: [place(0.1, 0.68), place(0.9, 0.66)],
      height: 2.5,
      ...finish,
    };
    const outline = [place(0.3, 0.3), place(0.6, 0.3), place(0.55, 0.36), place(0.35, 0.36)];
    const standee = {
      ...{ id: 's', name: 'Half', matte: 'half', foot: place(0.25, 0.85) },
      ...{ roundness: 0.6, crease: 0.5 + crease / 2, ...shine },
    };
    const square = [place(0.4, 0.5), place(0.5, 0.5), place(0.5, 0.56), place(0.4, 0.56)];
    const way = [place(0.6, 0.5), place(0.7, 0.52), place(0.75, 0.5)];
    const base = streetScene([
      streetLamp('globe', 0.5, { foot: place(0.5, 0.72) }),
      streetLamp('pane', 0.45, {
        kind: 'pane',
        path: square,
        at: place(0.45, 0.53),
        foot: place(0.45, 0.67),
      }),
      streetLamp('tube', 0.7, {
        kind: 'tube',
        path: way,
        foot: place(0.68, 0.665),
        size: 0.003,
        lumens: 400,
      }),
      streetLamp('side', 1.4, { kind: 'offstage' }),
      streetLamp('car', 0.3, {
        kind: 'headlamps',
        path: [place(0.28, 0.62), place(0.34, 0.62)],
        foot: place(0.31, 0.66),
        aim: place(0.6, 0.9),
        lumens: 600,
      }),
      streetLamp('lantern', 0.2, { kind: 'lantern', bars: 0.8, lumens: 900 }),
      streetLamp('fire', 0.8, { kind: 'fire', at: place(0.8, 0.66), foot: place(0.8, 0.7), seed: 3 }),
      streetLamp('strand', 0.5, {
        kind: 'strand',
        path: [place(0.2, 0.25), place(0.8, 0.25)],
        ...{ lumens: 25, count: 12, sag: 0.1, size: 0.003 },
      }),
    ]);
    return {
      ...base,
      mattes: [half],
      plan: {
        ...base.plan,
        ground: finish,
        walls: [wall],
        decks: [{ ...{ id: 'd', name: 'Awning', outline, height: 2.4 }, ...finish }],
        standees: [standee],
        sunShadow: { matte: 'half', lift: 0.5 },
      },
      desk: { ...base.desk, sky: -1.5, moon: 0, haze: 1 },
      circuits: [
        testCircuit('street', { grip: { dark: 0.2, bright: 0.7, darkShare: 0.3, brightShare: 1.4 } }),
      ],
    };
  }

  it.each([
    ['whole walls', undefined, PLAIN_SURFACE],
    ['walls that end at a matte', 'half', PLAIN_SURFACE],
    ['surfaces that shine', 'half', { sheen: 0.7, roughness: 0.25, crease: 0.3, wet: 'half' }],
  ])(
    'casts all shadows, of every kind of light and %s, with kernels as with their twins',
    async (_, until, finish) => {
      const built = builtScene(finish);
      const walls = built.plan.walls.map((wall) => ({ ...wall, until }));
      const scene = { ...built, plan: { ...built.plan, walls } };
      const fast = await show(spyRenderer(true).renderer, scene);
      expect(largestDifference(fast, await show(spyRenderer(false).renderer, scene))).toBeLessThanOrEqual(1);
      const bare = { ...scene, plan: { ...scene.plan, walls: [], decks: [], standees: [] } };
      expect(largestDifference(fast, await show(spyRenderer().renderer, bare))).toBeGreaterThan(10);
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
      return (await renderer.circuit({ scene, region: WHOLE }, 'street', spill, NEVER)).g;
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
    const [whole, halved] = [await renderer.land(ended(), NEVER), await renderer.land(ended('half'), NEVER)];
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
        await renderer.circuit({ scene: { ...SCENE, circuits }, region: WHOLE }, 'street', spill, NEVER)
      ).g;
    };
    const plain = await lit({});
    tasks.length = 0;
    const held = await lit({ dark: 0, bright: 0.01, darkShare: 1, brightShare: 0.5 });
    expect(tasks.filter((task) => task === 'layer')).toEqual([]);
    const i = Math.floor(0.8 * STREET.height) * STREET.width + Math.floor(0.3 * STREET.width);
    expect(held[i] / plain[i]).toBeCloseTo(0.5, 3);
    const shares = await renderer.beneath(SCENE, 'street', NEVER);
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

  it('measures the tones of a night before it is refitted', async () => {
    const { renderer } = spyRenderer();
    const stretched = after(SCENE, setNight('Refit', { refit: { always: false, low: 0.1, high: 0.2 } }));
    const { low, high } = await renderer.toneRange(SCENE, NEVER);
    expect(await renderer.toneRange(stretched, NEVER)).toEqual({ low, high });
    expect(low).toBeLessThan(high);
    const codes = await show(renderer, after(streetScene([]), setNight('Haze', { haze: 0 })));
    expect(255 * high).toBeCloseTo(Math.max(...[0.1, 0.5, 0.8].map((v) => luminanceAt(codes, 0.5, v))), -1.3);
  });

  it('is the same on worker threads as on this one', async () => {
    const arena = createArena(256 * MEBIBYTE);
    const threads = createRenderer(arena, createNodePool(arena, 2), streetAssets(), 64 * MEBIBYTE);
    const there = await show(threads, SCENE);
    threads.close();
    expect(largestDifference(there, await show(spyRenderer().renderer, SCENE))).toBe(0);
  });

  it('makes a part of the picture as that part of the whole, also at widths that four does not divide', async () => {
    const { renderer } = spyRenderer();
    const whole = await show(renderer, SCENE);
    const part: Region = { ...WHOLE, left: 31, top: 70, width: 57, height: 40 };
    const some = await show(renderer, SCENE, part);
    for (let y = 0; y < part.height; y++) {
      const from = 4 * ((part.top + y) * STREET.width + part.left);
      const row = whole.slice(from, from + 4 * part.width);
      expect(
        largestDifference(some.slice(4 * y * part.width, 4 * (y + 1) * part.width), row),
      ).toBeLessThanOrEqual(1);
    }
  });

  it('computes nothing but the mix anew for a fader', async () => {
    const { renderer, tasks } = spyRenderer();
    await show(renderer, SCENE);
    tasks.length = 0;
    const dimmed = after(SCENE, setCircuit('level', 'street', { level: -2 }));
    expect(renderer.isReady({ scene: dimmed, region: WHOLE })).toBe(true);
    await show(renderer, dimmed);
    expect(new Set(tasks)).toEqual(new Set(['mix']));
  });

  it('computes only the lamp that moves, and the frame is that of the whole', async () => {
    const { renderer, tasks } = spyRenderer();
    const move = (u: number) => after(SCENE, setFixture('move', 'left', { at: { u, v: 0.35 } }));
    await show(renderer, move(0.31), WHOLE, 'left');
    tasks.length = 0;
    const moved = await show(renderer, move(0.32), WHOLE, 'left');
    expect(tasks).not.toContain('relief');
    const bands = tasks.filter((type) => type === 'layer').length;
    // Once for itself, once on the small copy for what surfaces give on.
    expect(bands).toBe(2 * Math.ceil((STREET.width * STREET.height) / 80_000));
    expect(largestDifference(moved, await show(spyRenderer().renderer, move(0.32)))).toBeLessThanOrEqual(1);
  });

  it('follows a dragged horizon without surveying the plate anew', async () => {
    const { renderer, tasks } = spyRenderer();
    const before = await show(renderer, SCENE);
    tasks.length = 0;
    const scene = after(SCENE, setPlan('Horizon', { horizon: { left: 0.45, right: 0.5 } }));
    const request = { scene, region: WHOLE, surveyAt: SCENE.plan.horizon };
    const dragged = await renderer.frame(request, NEVER, (pixels) => pixels.slice());
    expect(tasks).not.toContain('survey');
    expect(largestDifference(dragged, before)).toBeGreaterThan(5);
    await show(renderer, scene);
    expect(tasks).toContain('survey');
  });

  it('leaves out circuits that do not burn', async () => {
    const { renderer } = spyRenderer();
    const muted = after(SCENE, setCircuit('mute', 'street', { muted: true }));
    expect(largestDifference(await show(renderer, muted), await show(renderer, streetScene([])))).toBe(0);
  });

  it('keeps within its memory, and comes back to the same picture', async () => {
    const { renderer, used } = spyRenderer(true, 4 * MEBIBYTE);
    const first = await show(renderer, SCENE);
    for (let i = 0; i < 12; i++) {
      await show(renderer, after(SCENE, setFixture('move', 'left', { at: { u: 0.2 + i / 50, v: 0.3 } })));
    }
    const frame = 4 * STREET.width * STREET.height * 20;
    expect(used()).toBeLessThan(4 * MEBIBYTE + frame);
    expect(largestDifference(await show(renderer, SCENE), first)).toBe(0);
  });

  it('gives an outdated frame up and leaves nothing behind', async () => {
    const { renderer, used } = spyRenderer();
    const stop = new AbortController();
    const frame = renderer.frame({ scene: SCENE, region: WHOLE }, stop.signal, () => {});
    stop.abort();
    await expect(frame).rejects.toSatisfy(isAbort);
    await show(renderer, SCENE);
    const before = used();
    const again = new AbortController();
    again.abort();
    await expect(renderer.frame({ scene: SCENE, region: WHOLE }, again.signal, () => {})).rejects.toSatisfy(
      isAbort,
    );
    expect(used()).toBe(before);
  });

  it('tells of a plate that cannot be loaded, and works when it can be again', async () => {
    const arena = createArena(64 * MEBIBYTE);
    let broken = true;
    const codes = (_asset: string, region: Region) =>
      broken ? Promise.reject(new Error('no plate')) : Promise.resolve(streetCodes(region));
    const assets = { ...streetAssets(), codes };
    const renderer = createRenderer(arena, createDirectPool(arena.memory), assets, 32 * MEBIBYTE);
    await expect(show(renderer, SCENE)).rejects.toThrow('no plate');
    broken = false;
    expect(await show(renderer, SCENE)).toHaveLength(4 * STREET.width * STREET.height);
  });
});
