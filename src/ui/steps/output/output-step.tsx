'use client';

import { Anchor, Button, Progress, SegmentedControl } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { framedSize } from '@/core/frame/frame';
import { api, ApiError, type OutputOrder, type OutputProgress } from '@/state/session/api';
import { followOutput, isUnderWay } from '@/state/work/follow-output';
import { useScene, useSession } from '../../editor/editor-context';
import { NumberRow } from '../../controls/number-row';
import classes from '../../worksheet/worksheet.module.css';

const QUALITY = { min: 40, max: 100, step: 1, unit: '', decimals: 0 };
const START: OutputOrder = { format: 'jpeg', quality: 92 };

function megabytes(bytes: number): string {
  return `${(bytes / 1e6).toFixed(1)} MB`;
}

/** Where an output stands in the line. */
const waitingText = (ahead: number) =>
  ahead === 1 ? 'Waits for one other picture.' : `Waits for ${ahead} other pictures.`;

/** Hands a file of this server to the browser's own downloads. */
function download(href: string): void {
  const link = document.createElement('a');
  link.href = href;
  link.download = '';
  link.click();
}

/** The way out: a finished picture at full size, made on the server, and the scene as a file. */
export function OutputStep() {
  const { flush } = useSession();
  const id = useScene((state) => state.id);
  const plate = useScene(({ scene }) => scene.plate);
  const frame = useScene(({ scene }) => scene.frame);
  const { width, height } = framedSize(plate, frame);
  const [order, setOrder] = useState(START);
  const [output, setOutput] = useState<OutputProgress>();
  const [fault, setFault] = useState<string>();
  const following = useRef<AbortController>(null);
  useEffect(() => () => following.current?.abort(), []);
  const running = output !== undefined && isUnderWay(output);

  async function send(): Promise<void> {
    setFault(undefined);
    following.current = new AbortController();
    try {
      await flush();
      const started = await api.startOutput(id, order);
      setOutput(started);
      const finished = await followOutput(started, setOutput, following.current.signal);
      if (finished.state === 'done') download(api.outputFile(finished.id));
      if (finished.state === 'failed') setFault(finished.reason);
    } catch (error) {
      setOutput(undefined);
      if (error instanceof ApiError) setFault(error.message);
      else throw error;
    }
  }

  async function saveSceneFile(): Promise<void> {
    setFault(undefined);
    await flush().then(
      () => download(api.sceneFile(id)),
      (error: Error) => setFault(error.message),
    );
  }

  return (
    <>
      <OrderRows order={order} onChange={setOrder} />
      <div className={classes.actions}>
        <Button size="compact-sm" onClick={() => void send()} disabled={running}>
          Send out {width} × {height}
        </Button>
        {running && (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              void api.cancelOutput(output.id).then(setOutput, (error: Error) => setFault(error.message))
            }
          >
            Cancel
          </Button>
        )}
      </div>
      <HowItGoes output={output} fault={fault} />
      <p className={classes.hint}>sRGB, full size, the same picture as on the screen.</p>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" onClick={() => void saveSceneFile()}>
          Save the scene as a file
        </Button>
      </div>
    </>
  );
}

interface OrderRowsProps {
  order: OutputOrder;
  onChange: (order: OutputOrder) => void;
}

/** What is sent out: format and quality. */
function OrderRows({ order, onChange }: OrderRowsProps) {
  return (
    <>
      <div className={classes.pair}>
        <span>Format</span>
        <SegmentedControl
          aria-label="Format"
          size="xs"
          value={order.format}
          data={[
            { value: 'jpeg', label: 'JPEG' },
            { value: 'png', label: 'PNG' },
          ]}
          onChange={(format) => onChange({ ...order, format })}
        />
      </div>
      {order.format === 'jpeg' && (
        <NumberRow
          label="Quality"
          value={order.quality}
          range={QUALITY}
          initial={START.quality}
          onChange={(quality) => onChange({ ...order, quality })}
        />
      )}
    </>
  );
}

/** How far an output is, and what came of it. */
function HowItGoes({ output, fault }: { output?: OutputProgress; fault?: string }) {
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
      {output?.state === 'cancelled' && <span>Cancelled. Nothing was written.</span>}
      {fault && <span role="alert">{fault}</span>}
    </div>
  );
}
