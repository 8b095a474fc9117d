import type { OpenScene } from '@/core/scene/opened-scene';
import { advance, stacksOf } from '@/core/scene/history';
import { api } from './api';
import { outboxStore } from './outbox';
import { createSaver } from './saver';
import { createReadoutStore, type ReadoutStore } from './readout-store';
import { createSegmenter, type Segmenter } from './segmenter';
import { createSceneStore, type SceneStore } from './scene-store';
import { createViewStore, type ViewStore } from './view-store';

/** An open scene in this window: its store, its view, its saving. */
export interface OpenedSession {
  scene: SceneStore;
  view: ViewStore;
  /** 35 mm equivalent focal length that the photo names. */
  photoLens?: number;
  /** What is read off the picture. */
  readout: ReadoutStore;
  /** Finds edges in the plate. */
  segmenter: Segmenter;
  /** Settles once everything is saved; rejects when a person must choose first. */
  flush: () => Promise<void>;
  /** Lets go of what is not saved. */
  discard: () => void;
  close: () => void;
}

/** Opens a scene, taking up what an earlier window on it left unsaved. */
export function openSession({ id, scene, revision, log, photoLens }: OpenScene): OpenedSession {
  const saver = createSaver({
    revision,
    send: (base, entries) => api.save(id, base, entries),
    keep: (outbox) => outboxStore.write(id, outbox),
    onState: (state, reason) => store.getState().setSaveState(state, reason),
  });
  const store = createSceneStore({ id, scene, log }, saver.push);
  const known = new Set(log.map((entry) => entry.id));
  const left = outboxStore.read(id);
  const unsaved = left?.entries.filter((entry) => !known.has(entry.id)) ?? [];
  if (left && unsaved.length > 0) {
    store.setState({ scene: left.scene, history: unsaved.reduce(advance, stacksOf(log)) });
    saver.resume(left);
  }
  const segmenter = createSegmenter(scene.plate);
  return {
    scene: store,
    photoLens,
    view: createViewStore(),
    readout: createReadoutStore(),
    segmenter,
    async flush() {
      store.getState().settle();
      await saver.flush();
    },
    discard: () => outboxStore.write(id, { base: 0, entries: [], scene }),
    close() {
      store.getState().settle();
      saver.stop();
      segmenter.cancel();
    },
  };
}
