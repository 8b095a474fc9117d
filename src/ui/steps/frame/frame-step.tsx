'use client';

import { Button, NativeSelect } from '@mantine/core';
import { framedSize, WHOLE_FRAME, withRatio } from '@/core/frame/frame';
import { setFrame } from '@/core/scene/commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import { NumberRow } from '../../controls/number-row';
import { useScene, useView } from '../../editor/editor-context';
import classes from '../../worksheet/worksheet.module.css';

const RATIOS = [
  [1, '1 : 1'],
  [5 / 4, '5 : 4'],
  [4 / 3, '4 : 3'],
  [3 / 2, '3 : 2'],
  [16 / 9, '16 : 9'],
  [2, '2 : 1'],
  [4 / 5, '4 : 5'],
  [3 / 4, '3 : 4'],
  [2 / 3, '2 : 3'],
  [9 / 16, '9 : 16'],
] as const;

/** What of the plate the picture shows. Nothing is cut away: all of it comes back when the frame is opened again. */
export function FrameStep() {
  const frame = useScene(({ scene }) => scene.frame);
  const plate = useScene(({ scene }) => scene.plate);
  const change = useScene((state) => state.change);
  const aspect = plate.width / plate.height;
  const { width, height } = framedSize(plate, frame);

  /** Sides go together while a ratio is kept. */
  const side = (name: 'width' | 'height', value: number) => {
    const other =
      frame.ratio === 0
        ? {}
        : name === 'width'
          ? { height: (value * aspect) / frame.ratio }
          : { width: (value * frame.ratio) / aspect };
    return { [name]: value, ...other };
  };
  const row = (name: 'angle' | 'width' | 'height' | 'u' | 'v', label: string, range: Range) => (
    <NumberRow
      label={label}
      value={frame[name]}
      range={range}
      initial={WHOLE_FRAME[name]}
      onChange={(value) =>
        change(
          `frame ${name}`,
          setFrame(label, name === 'width' || name === 'height' ? side(name, value) : { [name]: value }),
        )
      }
    />
  );
  return (
    <>
      <RatioRow />
      {row('angle', 'Turn', RANGES.angle)}
      {row('width', 'Width', RANGES.frameSide)}
      {row('height', 'Height', RANGES.frameSide)}
      {row('u', 'Across', RANGES.framePlace)}
      {row('v', 'Down', RANGES.framePlace)}
      <p className={classes.hint}>
        {width} × {height} pixels. Drag the frame or its edges in the picture. Lamps, ground plan and all else
        stay where they are on the plate.
      </p>
      <Actions />
    </>
  );
}

function RatioRow() {
  const frame = useScene(({ scene }) => scene.frame);
  const { width, height } = useScene(({ scene }) => scene.plate);
  const run = useScene((state) => state.run);
  const aspect = width / height;

  function choose(ratio: number): void {
    const held = ratio === 0 ? frame : withRatio(frame, ratio, aspect);
    run(setFrame('Ratio of the frame', { ...held, ratio }));
  }

  return (
    <div className={classes.pair}>
      <span>Ratio</span>
      <NativeSelect
        size="xs"
        aria-label="Ratio"
        value={String(frame.ratio)}
        data={[
          { value: '0', label: 'free' },
          { value: String(aspect), label: 'as the plate' },
          ...RATIOS.filter(([ratio]) => ratio !== aspect).map(([ratio, label]) => ({
            value: String(ratio),
            label,
          })),
        ]}
        onChange={(event) => choose(Number(event.currentTarget.value))}
      />
    </div>
  );
}

function Actions() {
  const run = useScene((state) => state.run);
  const levelling = useView((view) => view.levelling);
  const setView = useView((view) => view.set);
  return (
    <>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant={levelling ? 'filled' : 'default'}
          aria-pressed={levelling}
          onClick={() => setView({ levelling: !levelling })}
        >
          Level along a line
        </Button>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => run(setFrame('Show the whole plate', { ...WHOLE_FRAME, ratio: 0 }))}
        >
          The whole plate
        </Button>
      </div>
      {levelling && (
        <p className={classes.hint}>Drag along something in the picture that should be level, or upright.</p>
      )}
    </>
  );
}
