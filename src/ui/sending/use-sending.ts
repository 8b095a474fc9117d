import { useEffect, useRef, useState } from 'react';
import type { OutputProgress } from '@/state/session/answers';
import { api, ApiError } from '@/state/session/api';
import { followOutput, isUnderWay } from '@/state/work/follow-output';

/** Hands a file to the browser's own downloads. `name` counts where no server names it. */
export function download(href: string, name = ''): void {
  const link = document.createElement('a');
  link.href = href;
  link.download = name;
  link.click();
}

/** Hands a text to the browser's own downloads as a file. */
export function downloadText(text: string, name: string, type = 'text/plain'): void {
  const href = URL.createObjectURL(new Blob([text], { type }));
  download(href, name);
  URL.revokeObjectURL(href);
}

/** Something that is sent out, from the first word to the file in the browser's downloads. */
export interface Sending {
  output: OutputProgress | undefined;
  fault: string | undefined;
  running: boolean;
  /** Begins it, and follows it to its end. */
  send: (start: () => Promise<OutputProgress>) => Promise<void>;
  cancel: () => void;
  setFault: (fault: string | undefined) => void;
}

export function useSending(): Sending {
  const [output, setOutput] = useState<OutputProgress>();
  const [fault, setFault] = useState<string>();
  const following = useRef<AbortController>(null);
  useEffect(() => () => following.current?.abort(), []);
  return {
    output,
    fault,
    running: output !== undefined && isUnderWay(output),
    async send(start) {
      setFault(undefined);
      const { signal } = (following.current = new AbortController());
      try {
        const started = await start();
        setOutput(started);
        const finished = await followOutput(started, setOutput, signal);
        if (signal.aborted) return;
        if (finished.state === 'done') download(api.outputFile(finished.id));
        if (finished.state === 'failed') setFault(finished.reason);
      } catch (error) {
        setOutput(undefined);
        if (error instanceof ApiError) setFault(error.message);
        else throw error;
      }
    },
    cancel() {
      if (output) void api.cancelOutput(output.id).then(setOutput, (error: Error) => setFault(error.message));
    },
    setFault,
  };
}
