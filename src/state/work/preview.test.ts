import { describe, expect, it, vi } from 'vitest';
import { wholeRegion } from '@/core/plane/region';
import { newScene } from '@/core/scene/new-scene';
import { abortError } from '@/engine/aborted';
import type { FrameRequest } from '@/engine/frame-request';
import type { Renderer } from '@/engine/renderer';
import { streetLamp } from '../../../test/street';
import { createPreview } from './preview';

const scene = (title: string) => newScene(title, { asset: '0'.repeat(64), width: 1800, height: 1200 });

/** A renderer whose frames end when the test says so. */
function slowRenderer(ready: () => boolean) {
  const frames: { title: string; width: number; end: () => void; aborted: () => boolean }[] = [];
  const renderer: Renderer = {
    frame: ({ scene: { title }, region }, signal, consume) =>
      new Promise((resolve, reject) => {
        signal.addEventListener('abort', () => reject(abortError()));
        frames.push({
          title,
          width: region.width,
          end: () => resolve(consume(new Uint8ClampedArray())),
          aborted: () => signal.aborted,
        });
      }),
    deepFrame: () => Promise.reject(new Error('not asked for')),
    read: () => Promise.reject(new Error('not asked for')),
    isReady: ready,
    keyOf: ({ scene: { title } }) => title,
    close: () => {},
  };
  return { renderer, frames };
}

const wish = (title: string, moving?: FrameRequest['moving']) => ({
  ...{ scene: scene(title), moving },
  region: wholeRegion(1000, 667),
  coarse: wholeRegion(400, 267),
});

const turn = () => new Promise((resolve) => setImmediate(resolve));

describe('createPreview', () => {
  it('paints a coarse frame before a fine one that must be computed', async () => {
    const { renderer, frames } = slowRenderer(() => false);
    const painted: boolean[] = [];
    const preview = createPreview(
      renderer,
      (_pixels, _size, coarse) => painted.push(coarse),
      vi.fn(),
      vi.fn(),
    );
    preview.show(wish('a'));
    await turn();
    expect(frames[0].width).toBe(400);
    frames[0].end();
    await turn();
    expect(frames[1].width).toBe(1000);
    frames[1].end();
    await turn();
    expect(painted).toEqual([true, false]);
  });

  it('of a fixture that is dragged begins no fine frame before it rests, and goes on at once with what is newer', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const { renderer, frames } = slowRenderer(() => true);
    const preview = createPreview(renderer, vi.fn(), vi.fn(), vi.fn());
    const lamp = streetLamp('lamp', 0.5);
    preview.show(wish('a', lamp));
    await turn();
    frames[0].end();
    await turn();
    expect(frames).toHaveLength(1);
    preview.show(wish('b', lamp));
    await turn();
    expect(frames.map(({ title, width }) => `${title} ${width}`)).toEqual(['a 400', 'b 400']);
    preview.show(wish('c', lamp));
    frames[1].end();
    await turn();
    frames[2].end();
    await turn();
    vi.advanceTimersByTime(200);
    await turn();
    expect(frames.map(({ title, width }) => `${title} ${width}`).slice(2)).toEqual(['c 400', 'c 1000']);
    vi.useRealTimers();
  });

  it('drops an outdated fine frame, never a coarse one', async () => {
    const { renderer, frames } = slowRenderer(() => false);
    const preview = createPreview(renderer, vi.fn(), vi.fn(), vi.fn());
    preview.show(wish('a'));
    await turn();
    preview.show(wish('b'));
    expect(frames[0].aborted()).toBe(false);
    frames[0].end();
    await turn();
    expect(frames[1]).toMatchObject({ title: 'b', width: 400 });
    frames[1].end();
    await turn();
    preview.show(wish('c'));
    expect(frames[2].aborted()).toBe(true);
    await turn();
    expect(frames[3]).toMatchObject({ title: 'c', width: 400 });
  });

  it('finishes a mere mix, and skips what was wished for in between', async () => {
    const { renderer, frames } = slowRenderer(() => true);
    const preview = createPreview(renderer, vi.fn(), vi.fn(), vi.fn());
    for (const title of ['a', 'b', 'c', 'd']) preview.show(wish(title));
    frames[0].end();
    await turn();
    expect(frames.map(({ title }) => title)).toEqual(['a', 'd']);
    expect(frames[0].aborted()).toBe(false);
  });

  it('tells when it works, and of a fault', async () => {
    const busy: boolean[] = [];
    const faults: Error[] = [];
    const { renderer } = slowRenderer(() => true);
    renderer.frame = () => Promise.reject(new Error('no'));
    const preview = createPreview(
      renderer,
      vi.fn(),
      (b) => busy.push(b),
      (error) => faults.push(error),
    );
    preview.show(wish('a'));
    await turn();
    expect(busy).toEqual([true, false]);
    expect(faults[0].message).toBe('no');
  });

  it('shows the picture of an earlier visit at once, makes what it stands on behind it, and is busy again at the next wish', async () => {
    const { renderer, frames } = slowRenderer(() => false);
    const painted: [number, boolean][] = [];
    const busy: boolean[] = [];
    const kept = {
      find: vi.fn(() => Promise.resolve(new Uint8ClampedArray(7))),
      keep: vi.fn(() => Promise.resolve()),
    };
    const preview = createPreview(
      renderer,
      (pixels, _size, coarse) => painted.push([pixels.length, coarse]),
      (is) => busy.push(is),
      vi.fn(),
      kept,
    );
    preview.show(wish('a'));
    await turn();
    expect(kept.find).toHaveBeenCalledExactlyOnceWith('a', wish('a').region);
    expect(painted).toEqual([[7, false]]);
    expect(busy).toEqual([true, false]);
    // No coarse frame comes over it.
    expect(frames.map(({ width }) => width)).toEqual([1000]);
    preview.show(wish('b'));
    expect(busy.at(-1)).toBe(true);
    await turn();
    expect(frames.map(({ title, width }) => [title, width])).toEqual([
      ['a', 1000],
      ['b', 400],
    ]);
    expect(kept.find).toHaveBeenCalledTimes(1);
  });

  it('keeps a picture once it has stood for a while, and none that is on the move', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const { renderer, frames } = slowRenderer(() => true);
    const kept = { find: () => Promise.resolve(undefined), keep: vi.fn(() => Promise.resolve()) };
    const preview = createPreview(renderer, vi.fn(), vi.fn(), vi.fn(), kept);
    const settle = async () => {
      await turn();
      frames.at(-1)!.end();
      await turn();
    };
    preview.show(wish('a'));
    await settle();
    vi.advanceTimersByTime(1000);
    preview.show(wish('b'));
    await settle();
    vi.advanceTimersByTime(2000);
    expect(frames).toHaveLength(2);
    vi.advanceTimersByTime(1000);
    await settle();
    expect(kept.keep).toHaveBeenCalledExactlyOnceWith('b', wish('b').region, expect.anything());
    preview.stop();
    vi.useRealTimers();
  });
});
