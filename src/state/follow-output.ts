import { api, type OutputProgress } from './api';

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

/** Follows an output until it ends or is no longer watched; tells each state that it sees. */
export async function followOutput(
  started: OutputProgress,
  onProgress: (progress: OutputProgress) => void,
  signal: AbortSignal,
): Promise<OutputProgress> {
  let now = started;
  while (now.state === 'running' && !signal.aborted) {
    await pause(LOOK, signal);
    now = await api.outputProgress(started.id);
    if (!signal.aborted) onProgress(now);
  }
  return now;
}
