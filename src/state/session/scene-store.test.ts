import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { setDesk, setNight } from '@/core/scene/commands';
import type { LogEntry } from '@/core/scene/history';
import { newScene } from '@/core/scene/new-scene';
import { createSceneStore } from './scene-store';

const SCENE = newScene('Test', { asset: '0'.repeat(64), width: 100, height: 100 });

function setUp(log: LogEntry[] = []) {
  const saved: LogEntry[] = [];
  const store = createSceneStore({ id: 'x', scene: SCENE, log }, (entry) => saved.push(entry));
  return { store, saved, ambient: () => store.getState().scene.desk.ambient };
}

describe('scene store', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('makes one step of a whole drag', () => {
    const { store, saved, ambient } = setUp();
    for (const level of [-1, -2, -3])
      store.getState().change('fader', setDesk('Ambient', { ambient: level }));
    expect(ambient()).toBe(-3);
    expect(saved).toHaveLength(0);
    store.getState().settle();
    expect(saved).toHaveLength(1);
    store.getState().undo();
    expect(ambient()).toBe(0);
    store.getState().redo();
    expect(ambient()).toBe(-3);
    expect(saved.map(({ kind }) => kind)).toEqual(['do', 'undo', 'redo']);
  });

  it('settles by itself after a rest, and when another gesture begins', () => {
    const { store, saved } = setUp();
    store.getState().change('wheel', setDesk('Ambient', { ambient: -1 }));
    vi.advanceTimersByTime(1000);
    expect(saved).toHaveLength(1);
    store.getState().change('one', setDesk('Ambient', { ambient: -2 }));
    store.getState().change('two', setNight('Tint', { tint: 0.3 }));
    expect(saved).toHaveLength(2);
    store.getState().undo();
    expect(saved.map(({ label }) => label)).toEqual(['Ambient', 'Ambient', 'Tint', 'Tint']);
    expect(store.getState().scene.night.tint).toBe(0);
  });

  it('does not settle while a pointer is down, however long it rests', () => {
    const { store, saved } = setUp();
    store.getState().hold();
    store.getState().change('fader', setDesk('Ambient', { ambient: -1 }));
    vi.advanceTimersByTime(5000);
    expect(saved).toHaveLength(0);
    store.getState().change('fader', setDesk('Ambient', { ambient: -2 }));
    store.getState().settle();
    expect(saved).toHaveLength(1);
  });

  it('saves nothing for a gesture that ends where it began', () => {
    const { store, saved } = setUp();
    store.getState().change('fader', setDesk('Ambient', { ambient: -1 }));
    store.getState().change('fader', setDesk('Ambient', { ambient: 0 }));
    store.getState().settle();
    expect(saved).toHaveLength(0);
  });

  it('does no step that no scene may hold: it is told, the scene stays, and what comes after is saved', () => {
    const { store, saved, ambient } = setUp();
    store.getState().run(setDesk('Ambient', { ambient: -1 }));
    store.getState().change('fader', setDesk('Ambient', { ambient: NaN }));
    store.getState().settle();
    expect(store.getState()).toMatchObject({ refusal: { label: 'Ambient' }, gesture: undefined });
    expect(store.getState().refusal!.fault).toMatch(/ambient/);
    expect([ambient(), saved.length]).toEqual([-1, 1]);
    store.getState().run(setDesk('Ambient', { ambient: -2 }));
    expect([ambient(), saved.length]).toEqual([-2, 2]);
  });

  it('goes to any moment and back', () => {
    const { store, ambient } = setUp();
    for (const level of [-1, -2, -3]) store.getState().run(setDesk('Ambient', { ambient: level }));
    store.getState().goTo(1);
    expect(ambient()).toBe(-1);
    store.getState().goTo(0);
    expect(store.getState().scene).toEqual(SCENE);
    store.getState().goTo(99);
    expect(ambient()).toBe(-3);
  });

  it('undoes what an earlier window did', () => {
    const first = setUp();
    first.store.getState().run(setDesk('Ambient', { ambient: -4 }));
    const later = createSceneStore(
      { id: 'x', scene: first.store.getState().scene, log: first.saved },
      () => {},
    );
    later.getState().undo();
    expect(later.getState().scene.desk.ambient).toBe(0);
    later.getState().undo();
    expect(later.getState().scene).toEqual(SCENE);
  });
});
