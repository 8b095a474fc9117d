import { patchScene, runCommand } from '@/core/scene/command';
import { flip, type LogEntry } from '@/core/scene/history';
import type { OpenScene } from '@/core/scene/opened-scene';
import { parseScene } from '@/core/scene/parse-scene';
import { SCENE_VERSION, type Scene } from '@/core/scene/schema';
import type { Outbox } from './outbox';

/** Work of an earlier window that goes on in this one. */
export interface TakenUp {
  base: number;
  entries: LogEntry[];
  /** The document with all entries in it. */
  scene: Scene;
}

/** What was not saved cannot be joined to the scene. */
export class LostWorkError extends Error {
  override name = 'LostWorkError';
}

/** The scene as it was at an earlier revision, as far as the log that came along reaches. */
function sceneAt(base: number, { scene, revision, log }: OpenScene): Scene | undefined {
  const since = revision - base;
  if (since < 0 || since > log.length) return undefined;
  return log
    .slice(log.length - since)
    .reduceRight((now, entry) => patchScene(now, flip(entry).patches), scene);
}

/** The kept document, brought up to date and checked; undefined where it is missing or damaged. */
function keptScene({ scene }: Outbox): Scene | undefined {
  try {
    return parseScene(scene);
  } catch {
    return undefined;
  }
}

/** The document with unsaved entries in it: made from the saved one where that reaches, else as it was kept. */
function withEntries(base: number, entries: readonly LogEntry[], opened: OpenScene): Scene | undefined {
  try {
    const before = sceneAt(base, opened);
    return before && entries.reduce((now, { patches }) => patchScene(now, patches), before);
  } catch {
    return undefined;
  }
}

/** All that differs between two scenes as one entry. */
function wholeChange(from: Scene, to: Scene): LogEntry {
  const label = 'Changes from before Sundew was updated';
  const { change } = runCommand(from, { label, apply: (draft) => void Object.assign(draft, to) });
  return { id: crypto.randomUUID(), kind: 'do', ...change };
}

/**
 * Joins what an earlier window left to the scene as it is saved now. Entries that were saved are left out; entries of another version are
 * not run, but what the document became is brought up to date. Undefined when all is saved. Throws LostWorkError when nothing of
 * it can be used.
 */
export function takeUp(opened: OpenScene, left: Outbox): TakenUp | undefined {
  const known = new Set(opened.log.map((entry) => entry.id));
  const saved = left.entries.findIndex((entry) => !known.has(entry.id));
  if (saved < 0) return undefined;
  const base = left.base + saved;
  if (left.version !== SCENE_VERSION) {
    const scene = keptScene(left);
    if (!scene) throw new LostWorkError();
    return { base, scene, entries: [wholeChange(opened.scene, scene)] };
  }
  const entries = left.entries.slice(saved);
  const scene = withEntries(base, entries, opened) ?? keptScene(left);
  if (!scene) throw new LostWorkError();
  return { base, entries, scene };
}
