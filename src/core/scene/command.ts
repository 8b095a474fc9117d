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

/** Applies patches to a scene that they fit. Throws when they do not. */
export function patchScene(scene: Scene, patches: Patch[]): Scene {
  return applyPatches(scene, patches);
}
