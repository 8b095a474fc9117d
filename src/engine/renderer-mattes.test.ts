import { describe, expect, it } from 'vitest';
import { wholeRegion } from '@/core/plane/region';
import type { Pass } from '@/core/matte/pass';
import { checkedScene } from '@/core/scene/parse-scene';
import type { Matte, Scene } from '@/core/scene/schema';
import type { FrameRequest } from './frame-request';
import { type Renderer } from './renderer';
import { STREET, streetScene } from '../../test/street';
import {
  half,
  largestDifference,
  luminanceAt,
  NEVER,
  placed,
  show,
  spyRenderer,
  WHOLE,
} from '../../test/spy-renderer';

describe('mattes in the renderer', () => {
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
    expect(new Set(tasks)).toEqual(new Set(['open', 'night', 'behind', 'sum', 'film']));
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
        { passes: [edge, { id: 'o', join: 'intersect', kind: 'matte', matte: 'other' }] },
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

  it('tells mattes apart that are made of each other twice, 50 deep, at once', async () => {
    const { renderer, tasks } = spyRenderer();
    const twice = (inner: string): Pass[] =>
      ['a', 'b'].map((id) => ({ id, join: 'add', kind: 'matte', matte: inner }));
    const chain = (first: Partial<Matte>): Scene => {
      const rest = Array.from({ length: 49 }, (_, i) => ({
        ...half,
        id: `m${i + 1}`,
        passes: twice(`m${i}`),
      }));
      const mattes = [{ ...half, ...first, id: 'm0' }, ...rest];
      return { ...placed({}), mattes, places: [{ matte: 'm49', outside: false, stops: -3 }] };
    };
    const scene = chain({});
    expect(checkedScene(scene)).toEqual(scene);
    const left = await show(renderer, scene);
    expect(largestDifference(left, await show(renderer, placed({})))).toBe(0);
    tasks.length = 0;
    const right = await show(renderer, chain({ invert: true }));
    expect(luminanceAt(right, 0.2, 0.8)).toBeGreaterThan(luminanceAt(left, 0.2, 0.8));
    expect(renderer.isReady({ scene: chain({ invert: true }), region: WHOLE })).toBe(true);
  });
});
