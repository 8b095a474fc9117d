import { useDebouncedValue } from '@mantine/hooks';
import { useEffect, useState } from 'react';
import type { OutputChoice } from '@/core/output/output-formats';
import { api } from '@/state/session/api';

/** How long an order must stand before its size is asked for, milliseconds. */
const REST = 400;

/** About how large an output will be, in words; nothing until that is known. */
export function useEstimate(sceneId: string, order: OutputChoice): string | undefined {
  const [standing] = useDebouncedValue(order, REST);
  const [told, setTold] = useState<{ of: OutputChoice; bytes?: number }>();
  useEffect(() => {
    const asking = new AbortController();
    api.estimate(sceneId, standing, asking.signal).then(
      (bytes) => setTold({ of: standing, bytes }),
      // It is a help, and no more: the output itself will say what is wrong.
      () => {},
    );
    return () => asking.abort();
  }, [sceneId, standing]);
  if (told?.of !== order || told.bytes === undefined) return undefined;
  const megabytes = told.bytes / 1e6;
  return `about ${megabytes < 10 ? megabytes.toFixed(1) : Math.round(megabytes)} MB`;
}
