import type { OutputProgress } from '../session/answers';
import { api, ApiError } from '../session/api';

/** Milliseconds between two looks at an output. */
const LOOK = 200;

function pause(milliseconds: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, milliseconds);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      resolve();
    });
  });
}

/** The state of an output; the last one known while the server does not answer. */
async function lookAt(last: OutputProgress): Promise<OutputProgress> {
  try {
    return await api.outputProgress(last.id);
  } catch (error) {
    if (error instanceof ApiError && error.status === 0) return last;
    throw error;
  }
}

/** Whether an output has not come to an end. */
export const isUnderWay = ({ state }: OutputProgress): boolean => state === 'waiting' || state === 'running';

/** Follows an output until it ends or is no longer watched; tells each state that it sees. */
export async function followOutput(
  started: OutputProgress,
  onProgress: (progress: OutputProgress) => void,
  signal: AbortSignal,
): Promise<OutputProgress> {
  let now = started;
  while (isUnderWay(now) && !signal.aborted) {
    await pause(LOOK, signal);
    now = await lookAt(now);
    if (!signal.aborted) onProgress(now);
  }
  return now;
}
