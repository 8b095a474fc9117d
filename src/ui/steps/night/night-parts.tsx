'use client';

import { Button, SegmentedControl } from '@mantine/core';
import { startingNight } from '@/core/night/starting-night';
import { setNight, setNightPart } from '@/core/scene/commands';
import { RANGES, type Range } from '@/core/fields/ranges';
import type { Night } from '@/core/scene/schema';
import { NumberRow, ratioScale } from '../../controls/number-row';
import { StopDown } from '../../controls/stop-down';
import { useScene } from '../../editor/editor-context';
import classes from '../../worksheet/worksheet.module.css';

const COOL = 'linear-gradient(90deg, #ff9c4e, #fff3e2 52%, #9fbcff)';
const TINT = 'linear-gradient(90deg, #6fa873, #8a8a8a, #b06fae)';
const KELVIN = { scale: ratioScale(RANGES.kelvin), track: COOL };

type Look = Partial<Parameters<typeof NumberRow>[0]>;
type NumberIn<T> = { [K in keyof T]: T[K] extends number ? K : never }[keyof T];
type OwnNumber = Exclude<NumberIn<Night>, 'hour'>;

/** Rows for numbers of the night itself. */
function useNightRow() {
  const night = useScene(({ scene }) => scene.night);
  const change = useScene((state) => state.change);
  const start = startingNight(night.hour);
  return (name: OwnNumber, label: string, range: Range, look?: Look) => (
    <NumberRow
      label={label}
      value={night[name]}
      range={range}
      initial={start[name]}
      onChange={(value) => change(`night ${name}`, setNight(label, { [name]: value }))}
      {...look}
    />
  );
}

/** Rows for numbers of one part of the night. */
function usePartRow<Part extends 'shape' | 'surround'>(part: Part) {
  const values = useScene(({ scene }) => scene.night[part]);
  const change = useScene((state) => state.change);
  const start: Night[Part] = startingNight(0)[part];
  return (name: NumberIn<Night[Part]> & string, label: string, range: Range, look?: Look) => (
    <NumberRow
      label={label}
      value={values[name] as number}
      range={range}
      initial={start[name] as number}
      onChange={(value) =>
        change(`night ${part} ${name}`, setNightPart(label, part, { [name]: value } as Partial<Night[Part]>))
      }
      {...look}
    />
  );
}

/** How dark, how cool, how muted. */
export function LightPart() {
  const row = useNightRow();
  return (
    <>
      {row('exposure', 'Exposure', RANGES.exposure)}
      <StopDown />
      {row('meter', 'Metered', RANGES.meter)}
      {row('kelvin', 'Kelvin', RANGES.kelvin, KELVIN)}
      {row('tint', 'Tint', RANGES.tint, { track: TINT })}
      {row('saturation', 'Saturation', RANGES.saturation)}
      {row('rods', 'Rod vision', RANGES.rods)}
      {row('hold', 'Hold bright', RANGES.hold)}
      {row('evenOut', 'Even out', RANGES.evenOut)}
    </>
  );
}

/** Curve, points, midtone, ceiling. The curve itself is drawn over the tones above. */
export function TonesPart() {
  const row = usePartRow('shape');
  const on = useScene(({ scene }) => scene.night.shape.on);
  const run = useScene((state) => state.run);
  return (
    <>
      <div className={classes.pair}>
        <span>Works on</span>
        <SegmentedControl
          size="xs"
          aria-label="Works on"
          value={on}
          data={[
            { value: 'luminance', label: 'Luminance' },
            { value: 'colour', label: 'Colour' },
          ]}
          onChange={(value) => run(setNightPart(`Shape the tones on ${value}`, 'shape', { on: value }))}
        />
      </div>
      {row('black', 'Black point', RANGES.blackPoint)}
      {row('white', 'White point', RANGES.whitePoint)}
      {row('middle', 'Midtone', RANGES.middle)}
      {row('ceiling', 'Ceiling', RANGES.ceiling)}
      <p className={classes.hint}>
        Click the tones above to bend the curve; pull a point out of them to take it away.
      </p>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => run(setNightPart('Reset the tones', 'shape', startingNight(0).shape))}
        >
          Straighten
        </Button>
      </div>
    </>
  );
}

/** What lies outside the pools sinks. */
export function SurroundPart() {
  const row = usePartRow('surround');
  const run = useScene((state) => state.run);
  return (
    <>
      {row('stops', 'Darken', RANGES.darken)}
      {row('soft', 'Softness', RANGES.strength)}
      {row('across', 'Width', RANGES.poolSize)}
      {row('down', 'Height', RANGES.poolSize)}
      {row('lamps', 'At lamps', RANGES.lampPools)}
      <p className={classes.hint}>
        Drag the ring in the picture to what shall stay open. At lamps opens a pool around each one that
        burns.
      </p>
      <div className={classes.actions}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => run(setNightPart('Reset the surroundings', 'surround', startingNight(0).surround))}
        >
          Leave them open
        </Button>
      </div>
    </>
  );
}

/** Haze: the air around lamps glows, and what is far fades into it. */
export function HazePart() {
  const row = useNightRow();
  return (
    <>
      {row('haze', 'Thickness', RANGES.haze)}
      {row('hazeKelvin', 'Colour', RANGES.kelvin, KELVIN)}
      {row('hazeGlow', 'Brightness', RANGES.hazeGlow)}
    </>
  );
}
