import type { Change } from './command';

/** One entry of a scene's log: something done, or an earlier entry undone or done again. */
export interface LogEntry extends Change {
  /** Made by the client; the same entry sent twice counts once. */
  id: string;
  kind: 'do' | 'undo' | 'redo';
}

/** A change that was done, with the entry of the log that did it. */
export interface DoneChange extends Change {
  id: string;
}

/** What can be undone and done again, latest last. */
export interface HistoryStacks {
  done: DoneChange[];
  undone: DoneChange[];
}

/** Reads the stacks off a log: a log only grows, so that undo works after a reload and between two tabs. */
export function stacksOf(log: readonly LogEntry[]): HistoryStacks {
  return log.reduce<HistoryStacks>(advance, { done: [], undone: [] });
}

/** The stacks after one more entry. */
export function advance({ done, undone }: HistoryStacks, entry: LogEntry): HistoryStacks {
  if (entry.kind === 'undo')
    return {
      done: done.slice(0, -1),
      undone: [...undone, { ...flip(entry), id: done.at(-1)?.id ?? entry.id }],
    };
  const change = { id: entry.id, label: entry.label, patches: entry.patches, inverse: entry.inverse };
  return { done: [...done, change], undone: entry.kind === 'redo' ? undone.slice(0, -1) : [] };
}

/** A change that does what the other undoes. */
export function flip({ label, patches, inverse }: Change): Change {
  return { label, patches: inverse, inverse: patches };
}
