import { createStore, type StoreApi } from 'zustand/vanilla';

/** Whether the server answers this window. */
export type Connection = StoreApi<{ isDown: boolean }>;

/** The window's one connection. Whatever asks the server tells it how that went. */
export const connection: Connection = createStore<{ isDown: boolean }>(() => ({ isDown: false }));

/** Notes whether the server answered just now. */
export function noteAnswer(answered: boolean, of: Connection = connection): void {
  if (of.getState().isDown === answered) of.setState({ isDown: !answered });
}

/** Milliseconds between two looks at a server that answers, and at one that does not. */
const LOOKS = { up: 5000, down: 1000 } as const;

/**
 * Asks again and again whether the server is there: at once when an answer failed to come, so that a window notices by itself when
 * it goes and when it is back. Returns what ends it.
 */
export function watchConnection(ask: () => Promise<unknown>, of: Connection = connection): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let ended = false;

  async function look(): Promise<void> {
    clearTimeout(timer);
    // What was asked has told how it went.
    await ask().catch(() => {});
    if (!ended) wait();
  }

  function wait(): void {
    clearTimeout(timer);
    timer = setTimeout(() => void look(), of.getState().isDown ? LOOKS.down : LOOKS.up);
  }

  const stopListening = of.subscribe(wait);
  wait();
  return () => {
    ended = true;
    clearTimeout(timer);
    stopListening();
  };
}

/** Calls back whenever the server is back. Returns what ends it. */
export const onReturn = (back: () => void, of: Connection = connection): (() => void) =>
  of.subscribe((now, before) => {
    if (before.isDown && !now.isDown) back();
  });
