import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import type { Scene } from './schema';

enablePatches();

/** A named change of a scene. `label` says what was done, in the words of the interface. */
export interface Command {
  label: string;
  apply: (draft: Draft<Scene>) => void;
}

/** What a command did: patches (as in RFC 6902, with paths as arrays) that do it and undo it. */
export interface Change {
  label: string;
  patches: Patch[];
  inverse: Patch[];
}

/** Runs a command. The scene itself is not touched. */
export function runCommand(scene: Scene, { label, apply }: Command): { scene: Scene; change: Change } {
  const [next, patches, inverse] = produceWithPatches(scene, (draft) => {
    apply(draft);
  });
  return { scene: next, change: { label, patches, inverse } };
}

/** A patch that leads nowhere in the document that it is meant for. */
export class PatchError extends Error {
  override name = 'PatchError';
}

/** Names that mean something to every object, so that no document may use them. */
const RESERVED = new Set<string | number>(['__proto__', 'prototype', 'constructor']);

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;

/** Whether a step is one of the first `length` places of a list; in a path they come as numbers and as text. */
const isPlace = (step: string | number, length: number): boolean =>
  /^(0|[1-9]\d*)$/.test(String(step)) && Number(step) < length;

/** Whether a step leads to something that is there; of a list only its places count, not what it has by nature. */
const leads = (holder: unknown, step: string | number): boolean =>
  Array.isArray(holder)
    ? isPlace(step, holder.length)
    : isObject(holder) && Object.hasOwn(holder, step) && !RESERVED.has(step);

/** Whether a change can be made at a step: at a place of a list, in a new place at its end, or under any plain name. */
const takes = (holder: unknown, step: string | number, op: Patch['op']): boolean =>
  Array.isArray(holder)
    ? isPlace(step, holder.length + (op === 'add' ? 1 : 0))
    : isObject(holder) && !RESERVED.has(step);

/** Checks that a patch fits a document. Throws PatchError. */
function checkPatch(document: unknown, { op, path }: Patch): void {
  let holder = document;
  for (const [i, step] of path.entries()) {
    const fits = i < path.length - 1 ? leads(holder, step) : takes(holder, step, op);
    if (!fits) throw new PatchError(`Nothing is at ${path.slice(0, i + 1).join('.')}.`);
    holder = (holder as Record<string | number, unknown>)[step];
  }
}

/**
 * Applies patches to a scene that they fit, one after the other. Throws PatchError for one that leads nowhere: through what is not
 * there, past the end of a list, or to what lists and objects have by nature.
 */
export function patchScene(scene: Scene, patches: readonly Patch[]): Scene {
  return patches.reduce((now, patch) => {
    checkPatch(now, patch);
    return applyPatches(now, [patch]);
  }, scene);
}
