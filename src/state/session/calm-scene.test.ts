import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { streetScene } from '../../../test/street';
import { setNight } from '@/core/scene/commands';
import { calmScene } from './calm-scene';
import { createSceneStore } from './scene-store';

const begin = () => {
  const scene = createSceneStore({ id: 's', scene: streetScene([]), log: [] }, () => {});
  const { calm, follow } = calmScene(scene);
  const stop = follow();
  const expose = (exposure: number) => scene.getState().change('night', setNight('Exposure', { exposure }));
  return { scene, calm, stop, expose, shown: () => calm.getState().scene.night.exposure };
};

describe('a calm scene', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('follows what is typed, stepped or undone at once', () => {
    const { scene, expose, shown } = begin();
    const before = shown();
    expose(-2);
    expect(shown()).toBe(-2);
    scene.getState().settle();
    scene.getState().undo();
    expect(shown()).toBe(before);
  });

  it('follows what is dragged elsewhere now and then, and at once when it is let go', () => {
    const { scene, expose, shown } = begin();
    scene.getState().hold();
    for (let k = 1; k <= 10; k++) {
      expose(-k);
      vi.advanceTimersByTime(30);
    }
    expect(shown()).toBeLessThan(-5);
    expect(shown()).toBeGreaterThan(-10);
    scene.getState().settle();
    expect(shown()).toBe(-10);
  });

  it('follows its own drags at once, and calms down after them', () => {
    const { scene, calm, expose, shown } = begin();
    scene.getState().hold();
    calm.getState().hold();
    expose(-1);
    expose(-2);
    expect(shown()).toBe(-2);
    calm.getState().settle();
    scene.getState().hold();
    expose(-3);
    expose(-4);
    expect(shown()).not.toBe(-4);
  });

  it('is left alone once nobody looks', () => {
    const { scene, stop, expose, shown } = begin();
    scene.getState().hold();
    expose(-1);
    const before = shown();
    stop();
    vi.runAllTimers();
    scene.getState().settle();
    expect(shown()).toBe(before);
  });
});
