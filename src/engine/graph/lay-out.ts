import type { Arena, Block } from '../memory/arena';
import type { NodeStore } from '../memory/node-store';
import type { KeptResult } from '../kept-results';
import { arrayType } from './stage';
import type { Loaded } from './stage-spec';
import type { LoadedRef, MadeRefs } from './task';
import { floatsAt } from './view';

/** Where what a stage makes and loads is laid: results dropped for room, and the memory that all workers see. */
interface Room {
  arena: Arena;
  store: NodeStore;
}

/** Lays planes out, by their lengths in floats. What was taken is in `blocks` even when there is no room for all. */
export function layOut(
  { store }: Pick<Room, 'store'>,
  lengths: Record<string, number>,
  blocks: Block[],
): MadeRefs['planes'] {
  const planes: MadeRefs['planes'] = {};
  for (const [name, length] of Object.entries(lengths)) {
    if (length > 0) blocks.push(store.allocate(4 * length));
    planes[name] = { at: length > 0 ? blocks[blocks.length - 1].offset : 0, length };
  }
  return planes;
}

/** Copies what was loaded to where workers see it. Its block is in `blocks`. */
export function shareLoaded({ arena, store }: Room, { data }: Loaded, blocks: Block[]): LoadedRef {
  const block = store.allocate(data.byteLength);
  blocks.push(block);
  const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  new Uint8Array(arena.memory.buffer, block.offset, data.byteLength).set(bytes);
  return { at: block.offset, length: data.length, type: arrayType(data) };
}

/** Lays a kept result's planes out again. Their blocks are in `blocks` even when there is no room for all. */
export function layKept(room: Room, { planes }: KeptResult, blocks: Block[]): MadeRefs['planes'] {
  const lengths = Object.fromEntries(Object.entries(planes).map(([name, { length }]) => [name, length]));
  const laid = layOut(room, lengths, blocks);
  for (const [name, ref] of Object.entries(laid)) floatsAt(room.arena.memory, ref).set(planes[name]);
  return laid;
}

/** A copy of a result, apart from the memory. */
export function copyOf({ arena }: Pick<Room, 'arena'>, { planes, facts }: MadeRefs): KeptResult {
  const copies = Object.entries(planes).map(
    ([name, ref]) => [name, floatsAt(arena.memory, ref).slice()] as const,
  );
  return { planes: Object.fromEntries(copies), facts };
}
