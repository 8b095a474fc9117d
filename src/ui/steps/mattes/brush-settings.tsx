'use client';

import { Button, SegmentedControl } from '@mantine/core';
import { useEffect } from 'react';
import type { EdgePass, EdgeStroke, PaintPass, PaintStroke } from '@/core/matte/pass';
import { setPass } from '@/core/scene/matte-commands';
import { RANGES } from '@/core/fields/ranges';
import type { Matte } from '@/core/scene/schema';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { PressureRow } from '../../controls/pressure-row';
import { useScene, useSession, useView } from '../../editor/editor-context';
import { useFinding } from '../../editor/use-finding';
import classes from '../../worksheet/worksheet.module.css';

const ACTS: { value: EdgeStroke['act']; label: string }[] = [
  { value: 'loop', label: 'Loop' },
  { value: 'take', label: 'Take' },
  { value: 'leave', label: 'Leave out' },
];

/** The brush in hand, for painting or for finding edges. */
export function BrushSettings({ matte, pass }: { matte: Matte; pass: PaintPass | EdgePass }) {
  const { segmenter } = useSession();
  const isEdge = pass.kind === 'edge';
  useEffect(() => {
    if (isEdge) segmenter.warm();
  }, [isEdge, segmenter]);
  const edgeAct = useView((view) => view.edgeAct);
  return (
    <>
      {isEdge ? <EdgeActs /> : <PaintActs />}
      {(!isEdge || edgeAct !== 'loop') && <BrushSize />}
      {!isEdge && <PaintRows />}
      <StrokesBack matte={matte} pass={pass} />
    </>
  );
}

function useBrush() {
  const brush = useView((view) => view.brush);
  const setView = useView((view) => view.set);
  const set = (values: Partial<PaintStroke>) => setView({ brush: { ...brush, ...values } });
  return { brush, set };
}

function EdgeActs() {
  const edgeAct = useView((view) => view.edgeAct);
  const setView = useView((view) => view.set);
  return (
    <SegmentedControl
      fullWidth
      size="xs"
      aria-label="What a stroke does"
      value={edgeAct}
      data={ACTS}
      onChange={(act) => setView({ edgeAct: act })}
    />
  );
}

function PaintActs() {
  const { brush, set } = useBrush();
  return (
    <SegmentedControl
      fullWidth
      size="xs"
      aria-label="What a stroke does"
      value={brush.erase ? 'erase' : 'paint'}
      data={[
        { value: 'paint', label: 'Paint' },
        { value: 'erase', label: 'Erase' },
      ]}
      onChange={(next) => set({ erase: next === 'erase' })}
    />
  );
}

function BrushSize() {
  const { brush, set } = useBrush();
  return (
    <NumberRow
      label="Brush size"
      value={brush.size}
      range={RANGES.brush}
      initial={0.03}
      scale={ratioScale(RANGES.brush)}
      onChange={(size) => set({ size })}
    />
  );
}

function PaintRows() {
  const { brush, set } = useBrush();
  const share = (key: 'soft' | 'flow' | 'strength', label: string, initial: number) => (
    <NumberRow
      label={label}
      value={brush[key]}
      range={RANGES.strength}
      initial={initial}
      onChange={(value) => set({ [key]: value })}
    />
  );
  return (
    <>
      {share('soft', 'Softness', 0.6)}
      {share('flow', 'Flow', 0.5)}
      {share('strength', 'Strength', 1)}
      <PressureRow value={brush.pressure} onChange={(pressure) => set({ pressure })} />
      <p className={classes.hint}>Without a pen, a slow stroke counts as a firm one.</p>
    </>
  );
}

function StrokesBack({ matte, pass }: { matte: Matte; pass: PaintPass | EdgePass }) {
  const finding = useView((view) => view.finding);
  const run = useScene((state) => state.run);
  const find = useFinding();
  const { segmenter } = useSession();

  /** An edge pass without its last stroke is found anew from the others. */
  async function takeBack(): Promise<void> {
    const strokes = pass.strokes.slice(0, -1);
    const label = `${matte.name}: take a stroke back`;
    if (pass.kind === 'paint')
      return run(setPass(label, matte.id, pass.id, { strokes: strokes as PaintStroke[] }));
    const asset = await find(() => segmenter.brush(undefined, strokes as EdgeStroke[]));
    if (asset === undefined) return;
    run(setPass(label, matte.id, pass.id, { strokes: strokes as EdgeStroke[], asset }));
  }

  return (
    <div className={classes.actions}>
      <Button
        size="compact-xs"
        variant="default"
        disabled={pass.strokes.length === 0 || finding}
        onClick={() => void takeBack()}
      >
        Take the last stroke back
      </Button>
      {finding && (
        <Button size="compact-xs" variant="default" onClick={segmenter.cancel}>
          Finding the edge… give up
        </Button>
      )}
    </div>
  );
}
