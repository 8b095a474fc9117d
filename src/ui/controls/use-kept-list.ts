import { useCallback, useEffect, useState } from 'react';

/** A list that the server keeps, what went wrong with it last, and how to change it. */
export interface KeptList<Item> {
  items: Item[];
  fault: string | undefined;
  /** Does something and lists anew. Says whether it went well. */
  attempt: (work: () => Promise<unknown>) => Promise<boolean>;
}

/** Lists what the server keeps. `load` must be the same function from one render to the next. */
export function useKeptList<Item>(load: () => Promise<Item[]>): KeptList<Item> {
  const [items, setItems] = useState<Item[]>([]);
  const [fault, setFault] = useState<string>();
  useEffect(() => {
    let left = false;
    load().then(
      (list) => {
        if (!left) setItems(list);
      },
      (error: Error) => {
        if (!left) setFault(error.message);
      },
    );
    return () => {
      left = true;
    };
  }, [load]);
  const attempt = useCallback(
    async (work: () => Promise<unknown>) => {
      setFault(undefined);
      try {
        await work();
        setItems(await load());
        return true;
      } catch (error) {
        setFault((error as Error).message);
        return false;
      }
    },
    [load],
  );
  return { items, fault, attempt };
}
