import type { OpenScene } from '@/core/scene/opened-scene';
import { advance, stacksOf } from '@/core/scene/history';
import { api } from './api';
import { onReturn, watchConnection } from './connection';
import { createPlace, findLeft, type Browser } from './outbox';
import { createSaver } from './saver';
import { createReadoutStore, type ReadoutStore } from '../work/readout-store';
import { createSegmenter, type Segmenter } from '../work/segmenter';
import { createSceneStore, type SceneStore } from './scene-store';
import { LostWorkError, takeUp, type TakenUp } from './take-up';

/** An open scene in this window: its store, its saving. */
export interface OpenedSession {
  scene: SceneStore;
  /** 35 mm equivalent focal length that the photo names. */
  photoLens?: number;
  /** What is read off the picture. */
  readout: ReadoutStore;
  /** Finds edges in the plate. */
  segmenter: Segmenter;
  /** Settles once everything is saved; rejects when a person must choose first. */
  flush: () => Promise<void>;
  /** Tries at once to save what waits. */
  retry: () => void;
  /** Lets go of what is not saved. */
  discard: () => void;
  /** Begins to follow the server; returns what closes the session. */
  start: () => () => void;
}

/** A scene as the server has it, and what an earlier window on it left unsaved. */
export interface Opening extends OpenScene {
  left?: TakenUp & { forget: () => void };
  /** Whether something that was left cannot be used. */
  lost: boolean;
}

/** Opens a scene as the server has it now, and finds what an earlier window left unsaved. */
export async function openScene(id: string, browser: Browser): Promise<Opening> {
  const [opened, kept] = await Promise.all([api.openScene(id), findLeft(id, browser)]);
  let lost = false;
  for (const { outbox, forget } of kept) {
    try {
      const taken = outbox && takeUp(opened, outbox);
      if (taken) return { ...opened, left: { ...taken, forget }, lost };
      lost ||= outbox === undefined;
    } catch (error) {
      if (!(error instanceof LostWorkError)) throw error;
      lost = true;
    }
    forget();
  }
  return { ...opened, lost };
}

/** A session on a scene, going on with what an earlier window on it left unsaved. */
export function openSession(opened: Opening, browser: Browser): OpenedSession {
  const { id, scene, revision, log, photoLens, left } = opened;
  const place = createPlace(id, crypto.randomUUID(), browser);
  const saver = createSaver({
    revision,
    send: (base, entries) => api.save(id, base, entries),
    keep: (outbox) => place.write(outbox),
    onState: (state, reason) => store.getState().setSaveState(state, reason),
  });
  const store = createSceneStore({ id, scene, log }, (entry, now) => saver.push(entry, now));
  if (left) {
    store.setState({ scene: left.scene, history: left.entries.reduce(advance, stacksOf(log)) });
    if (saver.resume(left)) left.forget();
  }
  const segmenter = createSegmenter(id, scene.plate);
  return {
    scene: store,
    photoLens,
    readout: createReadoutStore(),
    segmenter,
    async flush() {
      store.getState().settle();
      await saver.flush();
    },
    retry: () => saver.wake(),
    discard: () => void place.write({ version: 0, base: 0, entries: [] }),
    start() {
      const ends = [watchConnection(() => api.alive()), onReturn(() => saver.wake())];
      const leave = place.enter();
      saver.start();
      return () => {
        ends.forEach((end) => end());
        store.getState().settle();
        saver.stop();
        segmenter.cancel();
        leave();
      };
    },
  };
}
