'use client';

import { Anchor, Button, Progress } from '@mantine/core';
import type { ReactNode } from 'react';
import { api } from '@/state/session/api';
import type { Sending } from './use-sending';
import classes from '../worksheet/worksheet.module.css';

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;

/** Where an output stands in the line. */
const waitingText = (ahead: number) =>
  ahead === 1 ? 'Waits for one other picture.' : `Waits for ${ahead} other pictures.`;

interface SendButtonsProps {
  sending: Sending;
  onSend: () => void;
  disabled?: boolean;
  children: ReactNode;
}

/** What begins it, and what cancels it while it goes. */
export function SendButtons({ sending, onSend, disabled = false, children }: SendButtonsProps) {
  return (
    <div className={classes.actions}>
      <Button size="compact-sm" onClick={onSend} disabled={sending.running || disabled}>
        {children}
      </Button>
      {sending.running && (
        <Button size="compact-sm" variant="default" onClick={sending.cancel}>
          Cancel
        </Button>
      )}
    </div>
  );
}

/** How far an output is, and what came of it. */
export function HowItGoes({ sending: { output, fault } }: { sending: Sending }) {
  return (
    <div className={classes.progress} role="status">
      {output?.state === 'waiting' && <span>{waitingText(output.ahead ?? 0)}</span>}
      {output?.state === 'running' && (
        <Progress.Root size="sm">
          <Progress.Section value={100 * output.progress} aria-label="Output" />
        </Progress.Root>
      )}
      {output?.state === 'done' && (
        <span>
          Sent out: <Anchor href={api.outputFile(output.id)}>{output.fileName}</Anchor>,{' '}
          {megabytes(output.bytes ?? 0)}
        </span>
      )}
      {output?.state === 'done' && output.reason && <span role="alert">{output.reason}</span>}
      {output?.state === 'cancelled' && <span>Cancelled. Nothing was written.</span>}
      {fault && <span role="alert">{fault}</span>}
    </div>
  );
}
