import { ArenaFullError } from './arena';
import type { NodeStore } from './node-store';

/** A frame would take more time or memory than is set aside; the message says what of it. */
export class FrameLimitError extends Error {
  override name = 'FrameLimitError';
}

/** What nodes are in words: the first words of their keys. */
const PARTS: Record<string, readonly string[]> = {
  'the photo': ['plate', 'survey'],
  'the mattes': ['passes', 'matte', 'edge', 'refined', 'find', 'brushed', 'soft'],
  'the ground plan': ['relief', 'round', 'crease'],
  'the light of the fixtures': ['layer', 'bounce', 'grip', 'moon'],
  'evening out the day': ['even', 'levelling', 'shading', 'lift', 'gains'],
};

function partOf(key = ''): string {
  const [what] = key.split(' ');
  return Object.keys(PARTS).find((part) => PARTS[part].includes(what)) ?? 'the night';
}

/**
 * Does the work of one frame within a limit of time. Work that is given up when `signal` aborts is told so: by its own signal, or by
 * that of the limit. Throws FrameLimitError when the time is over or the memory does not do.
 */
export async function withinLimits<T>(
  store: Pick<NodeStore, 'underway'>,
  seconds: number,
  signal: AbortSignal,
  work: (signal: AbortSignal) => Promise<T>,
): Promise<T> {
  const over = new AbortController();
  let late: string | undefined;
  const limit = setTimeout(() => {
    late = partOf(store.underway());
    over.abort();
  }, 1000 * seconds);
  try {
    return await work(AbortSignal.any([signal, over.signal]));
  } catch (error) {
    if (late !== undefined && !signal.aborted) {
      throw new FrameLimitError(`The picture takes longer than ${seconds} s: ${late} is too much for it.`);
    }
    if (error instanceof ArenaFullError) {
      const part = partOf(error.part);
      throw new FrameLimitError(
        `The picture needs more memory than is set aside: ${part} is too much for it.`,
      );
    }
    throw error;
  } finally {
    clearTimeout(limit);
  }
}
