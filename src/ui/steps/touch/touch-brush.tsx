'use client';

import { SegmentedControl } from '@mantine/core';
import { RANGES } from '@/core/fields/ranges';
import type { PaintStroke } from '@/core/matte/pass';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { PressureRow } from '../../controls/pressure-row';
import { useSession, useView } from '../../editor/editor-context';
import { useSizeKeys } from '../../picture/use-size-keys';
import { FIRST_BRUSH } from './touch-view';
import own from './touch.module.css';

/** The brush in hand: what the next stroke is laid on with. */
export function TouchBrush() {
  const { view } = useSession();
  const brush = useView((state) => state.touchBrush);
  const set = (values: Partial<PaintStroke>) => view.setState({ touchBrush: { ...brush, ...values } });
  useSizeKeys((sized) =>
    view.setState(({ touchBrush: now }) => ({ touchBrush: { ...now, size: sized(now.size) } })),
  );
  const share = (name: 'flow' | 'soft', label: string) => (
    <NumberRow
      label={label}
      value={brush[name]}
      range={RANGES.strength}
      initial={FIRST_BRUSH[name]}
      onChange={(value) => set({ [name]: value })}
    />
  );
  return (
    <div className={own.brush}>
      <SegmentedControl
        aria-label="What a stroke does"
        fullWidth
        size="xs"
        value={brush.erase ? 'erase' : 'lay'}
        onChange={(value) => set({ erase: value === 'erase' })}
        data={[
          { value: 'lay', label: 'Lay on' },
          { value: 'erase', label: 'Take off' },
        ]}
      />
      <NumberRow
        label="Brush size"
        value={brush.size}
        range={RANGES.brush}
        initial={FIRST_BRUSH.size}
        scale={ratioScale(RANGES.brush)}
        onChange={(size) => set({ size })}
      />
      {share('flow', 'Flow')}
      {share('soft', 'Softness')}
      <PressureRow value={brush.pressure} onChange={(pressure) => set({ pressure })} />
    </div>
  );
}
