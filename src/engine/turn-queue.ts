/** When work has its turn: before all that can wait, or after all that cannot. */
export type Turn = 'soon' | 'later';

/** Does pieces of work one at a time: in the order in which they are asked for, but those for later only when no other waits. */
export function createTurnQueue(): <T>(turn: Turn, work: () => Promise<T>) => Promise<T> {
  const waiting: Record<Turn, (() => Promise<void>)[]> = { soon: [], later: [] };
  let busy = false;

  async function goOn(): Promise<void> {
    if (busy) return;
    busy = true;
    for (;;) {
      const next = waiting.soon.shift() ?? waiting.later.shift();
      if (!next) break;
      await next();
    }
    busy = false;
  }

  return (turn, work) =>
    new Promise((resolve, reject) => {
      waiting[turn].push(() => work().then(resolve, reject));
      void goOn();
    });
}
