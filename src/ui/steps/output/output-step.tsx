'use client';

import { Anchor, Button, Progress, Radio } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { useEffect, useRef, useState } from 'react';
import { framedSize } from '@/core/frame/frame';
import {
  OUTPUT_FORMAT_NAMES,
  OUTPUT_FORMATS,
  outputSize,
  SHORTEST_OUTPUT,
  type OutputChoice,
} from '@/core/output/output-formats';
import { api, ApiError, type OutputProgress } from '@/state/session/api';
import { followOutput, isUnderWay } from '@/state/work/follow-output';
import { useScene, useSession } from '../../editor/editor-context';
import { NumberRow } from '../../controls/number-row';
import classes from '../../worksheet/worksheet.module.css';

const QUALITY = { min: 40, max: 100, step: 1, unit: '', decimals: 0 };
const START: OutputChoice = { format: 'jpeg', quality: 92 };

/** Where a browser remembers how pictures were sent out last. */
const REMEMBERED = 'sundew-output';

/** What is remembered, where it is still sound. */
function remembered(text: string | undefined): OutputChoice {
  try {
    const { format, quality, long } = JSON.parse(text ?? '') as Partial<OutputChoice>;
    if (!OUTPUT_FORMAT_NAMES.includes(format!) || typeof quality !== 'number') return START;
    return { format: format!, quality, ...(typeof long === 'number' && { long }) };
  } catch {
    return START;
  }
}

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
  const full = framedSize(plate, frame);
  const [order, setOrder] = useLocalStorage<OutputChoice>({
    key: REMEMBERED,
    defaultValue: START,
    deserialize: remembered,
  });
  const { width, height } = outputSize(full, order.long);
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
      <OrderRows order={order} full={full} onChange={setOrder} />
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
      <p className={classes.hint}>
        {'hasLayers' in OUTPUT_FORMATS[order.format]
          ? 'Layers are for other programs to go on with. Circuits keep the names that they have here.'
          : 'sRGB, the same picture as on the screen. A smaller one is made at its own size, not shrunk.'}
      </p>
      <div className={classes.actions}>
        <Button size="compact-xs" variant="default" onClick={() => void saveSceneFile()}>
          Save the scene as a file
        </Button>
      </div>
    </>
  );
}

interface OrderRowsProps {
  order: OutputChoice;
  /** All of the picture, pixels. */
  full: { width: number; height: number };
  onChange: (order: OutputChoice) => void;
}

/** What is sent out: format, quality, size. */
function OrderRows({ order, full, onChange }: OrderRowsProps) {
  const longest = Math.max(full.width, full.height);
  const range = { min: SHORTEST_OUTPUT, max: longest, step: 1, unit: 'px', decimals: 0 };
  return (
    <>
      <Radio.Group
        aria-label="Format"
        value={order.format}
        onChange={(format) => onChange({ ...order, format: format })}
      >
        {OUTPUT_FORMAT_NAMES.map((name) => (
          <Radio
            key={name}
            size="xs"
            py={3}
            value={name}
            label={OUTPUT_FORMATS[name].label}
            description={order.format === name ? OUTPUT_FORMATS[name].says : undefined}
          />
        ))}
      </Radio.Group>
      {OUTPUT_FORMATS[order.format].hasQuality && (
        <NumberRow
          label="Quality"
          value={order.quality}
          range={QUALITY}
          initial={START.quality}
          onChange={(quality) => onChange({ ...order, quality })}
        />
      )}
      <NumberRow
        label="Long side"
        value={Math.min(longest, order.long ?? longest)}
        range={range}
        initial={longest}
        onChange={(long) => onChange({ ...order, long: long < longest ? long : undefined })}
      />
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
