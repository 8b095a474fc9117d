'use client';

import { useEffect, useState } from 'react';
import { Anchor, Button, Progress } from '@mantine/core';
import type { OutputProgress } from '@/state/session/answers';
import { api } from '@/state/session/api';
import { followOutput, isUnderWay } from '@/state/work/follow-output';
import classes from './scenes.module.css';

/** What an earlier visit sent out and is still on its way, and what came of it. */
export function Outgoing() {
  const [outputs, setOutputs] = useState<OutputProgress[]>([]);
  useEffect(() => {
    const watching = new AbortController();
    const tell = (one: OutputProgress) =>
      setOutputs((now) => now.map((other) => (other.id === one.id ? one : other)));
    const follow = async () => {
      const underWay = (await api.outputs()).filter(isUnderWay);
      if (watching.signal.aborted) return;
      setOutputs(underWay);
      await Promise.all(underWay.map((one) => followOutput(one, tell, watching.signal)));
    };
    // Where the server does not answer, the connection says so.
    void follow().catch(() => {});
    return () => watching.abort();
  }, []);
  if (outputs.length === 0) return null;
  return (
    <ul className={classes.outgoing} aria-label="On the way out">
      {outputs.map((output) => (
        <li key={output.id}>
          <One output={output} />
        </li>
      ))}
    </ul>
  );
}

function One({ output: { id, state, progress, fileName, reason } }: { output: OutputProgress }) {
  if (state === 'done') {
    return (
      <span>
        Sent out: <Anchor href={api.outputFile(id)}>{fileName}</Anchor> {reason}
      </span>
    );
  }
  if (state === 'failed') return <span>{reason}</span>;
  if (state === 'cancelled') return <span>{fileName}: cancelled.</span>;
  return (
    <>
      <span>{fileName}</span>
      <Progress className={classes.sent} value={100 * progress} aria-label={`${fileName}, how far`} />
      <Button size="compact-xs" variant="default" onClick={() => void api.cancelOutput(id)}>
        Cancel
      </Button>
    </>
  );
}
