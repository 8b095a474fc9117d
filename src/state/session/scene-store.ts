import { createStore, type StoreApi } from 'zustand/vanilla';
import { changeFault } from '@/core/scene/check-change';
import { patchScene, runCommand, type Command } from '@/core/scene/command';
import { advance, flip, stacksOf, type HistoryStacks, type LogEntry } from '@/core/scene/history';
import type { Scene } from '@/core/scene/schema';
import type { SaveState } from './saver';

/** The open scene as the interface sees it. */
export interface SceneState {
  id: string;
  /** The document, with an unfinished gesture in it. */
  scene: Scene;
  history: HistoryStacks;
  saveState: SaveState;
  saveReason?: string;
  /** Which gesture is under way, by its key. */
  gesture?: string;
  /** Whether a pointer is down on what it changes. */
  held: boolean;
  /** The last step that was not done, and what of the scene would have been wrong. */
  refusal?: { label: string; fault: string };
}

export interface SceneActions {
  /**
   * Shows a command's effect as part of a gesture: all changes of one key, until it settles, become one step of the
   * history. A change of another key settles the earlier gesture first.
   */
  change: (key: string, command: Command) => void;
  /** Says that a pointer is down: the gesture now ends only when it is settled, however long it rests. */
  hold: () => void;
  /** Ends the gesture and saves it. */
  settle: () => void;
  /** Does a command as a step of its own. */
  run: (command: Command) => void;
  undo: () => void;
  redo: () => void;
  /** Undoes or redoes until so many steps are done. */
  goTo: (steps: number) => void;
  setSaveState: (saveState: SaveState, saveReason?: string) => void;
}

export type SceneStore = StoreApi<SceneState & SceneActions>;

/** A gesture that nothing ends, such as turns of a wheel, settles after this many milliseconds of rest. */
const REST = 450;

type Save = (entry: LogEntry, scene: Scene) => void;

/** The store of an opened scene. `save` gets every finished step. */
export function createSceneStore(
  opened: { id: string; scene: Scene; log: LogEntry[] },
  save: Save,
): SceneStore {
  return createStore<SceneState & SceneActions>((set, get) => {
    const log = (entry: LogEntry, scene: Scene) => {
      set({ scene, history: advance(get().history, entry) });
      save(entry, scene);
    };
    const { settle, ...gestures } = gesturesOn(set, get, log);

    function step(kind: 'undo' | 'redo'): void {
      settle();
      const { scene, history } = get();
      const change = kind === 'undo' ? history.done.at(-1) : history.undone.at(-1);
      if (!change) return;
      const applied = kind === 'undo' ? flip(change) : change;
      log({ ...applied, id: crypto.randomUUID(), kind }, patchScene(scene, applied.patches));
    }

    return {
      id: opened.id,
      scene: opened.scene,
      history: stacksOf(opened.log),
      saveState: 'saved',
      held: false,
      settle,
      ...gestures,
      undo: () => step('undo'),
      redo: () => step('redo'),
      goTo(steps) {
        settle();
        while (get().history.done.length > steps) step('undo');
        while (get().history.done.length < steps && get().history.undone.length > 0) step('redo');
      },
      setSaveState: (saveState, saveReason) => set({ saveState, saveReason }),
    };
  });
}

/** Changes of a scene that become one step of its log when their gesture ends. */
function gesturesOn(
  set: (state: Partial<SceneState>) => void,
  get: () => SceneState,
  log: Save,
): Pick<SceneActions, 'change' | 'hold' | 'settle' | 'run'> {
  let before: Scene | undefined;
  let pending: Command | undefined;
  let rest: ReturnType<typeof setTimeout> | undefined;

  function settle(): void {
    clearTimeout(rest);
    if (get().held) set({ held: false });
    if (!before || !pending) return;
    const from = before;
    const { scene, change } = runCommand(from, pending);
    const isNew = change.patches.length > 0;
    [before, pending] = [undefined, undefined];
    // What no scene may hold could never be saved, nor anything after it.
    const fault = isNew ? changeFault(scene, from) : undefined;
    if (fault) return set({ gesture: undefined, scene: from, refusal: { label: change.label, fault } });
    set({ gesture: undefined, scene });
    if (isNew) log({ id: crypto.randomUUID(), kind: 'do', ...change }, scene);
  }

  return {
    change(key, command) {
      if (before && get().gesture !== key) settle();
      before ??= get().scene;
      pending = command;
      set({ gesture: key, scene: runCommand(before, command).scene });
      clearTimeout(rest);
      if (!get().held) rest = setTimeout(settle, REST);
    },
    hold() {
      settle();
      set({ held: true });
    },
    settle,
    run(command) {
      settle();
      before = get().scene;
      pending = command;
      settle();
    },
  };
}
