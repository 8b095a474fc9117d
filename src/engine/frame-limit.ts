import type { Graph } from './graph/graph';
import { ArenaFullError } from './memory/arena';

/** A frame would take more time or memory than is set aside; the message says what of it. */
export class FrameLimitError extends Error {
  override name = 'FrameLimitError';
}

/** What is too much where no stage was at work. */
const UNKNOWN = 'the night';

/**
 * Does the work of one frame within a limit of time. Work that is given up when `signal` aborts is told so: by its own signal, or by
 * that of the limit. Throws FrameLimitError when the time is over or the memory does not do.
 */
export async function withinLimits<T>(
  graph: Pick<Graph, 'underway'>,
  seconds: number,
  signal: AbortSignal,
  work: (signal: AbortSignal) => Promise<T>,
): Promise<T> {
  const over = new AbortController();
  let late: string | undefined;
  const limit = setTimeout(() => {
    late = graph.underway() ?? UNKNOWN;
    over.abort();
  }, 1000 * seconds);
  try {
    return await work(AbortSignal.any([signal, over.signal]));
  } catch (error) {
    if (late !== undefined && !signal.aborted) {
      throw new FrameLimitError(`The picture takes longer than ${seconds} s: ${late} is too much for it.`);
    }
    if (error instanceof ArenaFullError) {
      const part = error.part ?? UNKNOWN;
      throw new FrameLimitError(
        `The picture needs more memory than is set aside: ${part} is too much for it.`,
      );
    }
    throw error;
  } finally {
    clearTimeout(limit);
  }
}
