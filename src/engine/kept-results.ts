/** What a stage has made, apart from the arena: its planes by name, and what was found beside them, plain data. */
export interface KeptResult {
  planes: Record<string, Float32Array<ArrayBuffer>>;
  facts: unknown;
}

/** Keeps results of lasting stages by key, from one renderer to the next. What it does not find is made. */
export interface KeptResults {
  find: (key: string) => Promise<KeptResult | undefined>;
  /** Takes a copy for itself; nobody waits until it is kept. */
  keep: (key: string, result: KeptResult) => void;
}
