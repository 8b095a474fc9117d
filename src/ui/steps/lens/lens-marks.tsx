'use client';

import { useRef } from 'react';
import type { GlintMark } from '@/state/actions/lens-actions';
import { giveGlints, partGlint, strengthenGlints, takeGlints } from '@/state/actions/lens-actions';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { useGesture } from '../../controls/use-gesture';
import { useScene, useView } from '../../editor/editor-context';
import { nudgeOf } from '../../picture/nudge';
import { usePictureDrag } from '../../picture/use-picture-drag';
import type { Box } from '../../picture/view-geometry';
import { isChosen } from './use-glints';
import own from './lens-marks.module.css';
import classes from '../../picture/picture.module.css';

/** Half a mark, and its gap in the middle, CSS pixels. */
const ARM = 7;
const GAP = 4;
const GRIP = 9;

const NUDGE = { step: 0.001, coarse: 4 };
const STOPS = 0.5;

/** The least that a mark is drawn at, of its size: one can still be hit. */
const SMALLEST = 0.4;

/** How large marks are drawn and hit, 0 to 1, so that close ones stay apart. */
export function markScales(marks: readonly GlintMark[], box: Box): number[] {
  const places = marks.map(({ at }) => [at.u * box.width, at.v * box.height]);
  return places.map(([x, y], k) => {
    let nearest = Infinity;
    places.forEach(([u, v], other) => {
      if (other !== k) nearest = Math.min(nearest, Math.max(Math.abs(u - x), Math.abs(v - y)));
    });
    return Math.min(1, Math.max(SMALLEST, nearest / (2 * GRIP)));
  });
}

/** Four short corners around a source; one whose spikes were taken away has a stroke through them. */
const corners = `M${-ARM} ${-GAP}V${-ARM}H${-GAP}M${GAP} ${-ARM}H${ARM}V${-GAP}M${ARM} ${GAP}V${ARM}H${GAP}M${-GAP} ${ARM}H${-ARM}V${GAP}`;
const struck = `M${-GAP} ${GAP}L${GAP} ${-GAP}`;

interface GlintMarkProps {
  box: Box;
  mark: GlintMark;
  name: string;
  /** Of its full size, 0 to 1. */
  scale: number;
}

/**
 * A source in the picture. A click takes its spikes away or gives them back, a drag parts it in two. By keys: Delete and Enter do the
 * same as a click, plus and minus make it stronger or weaker, arrows part or move it.
 */
export function GlintMarkShape({ box, mark, name, scale }: GlintMarkProps) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const chosen = useView((view) => isChosen(mark, view));
  const setView = useView((view) => view.set);
  const gesture = useGesture();
  const held = useRef<{ mark: GlintMark; ids: [string, string] }>(undefined);
  const toggle = () => run(mark.isOn ? takeGlints([mark]) : giveGlints([mark]));

  function move(by: { u: number; v: number }): void {
    const { mark: start, ids } = (held.current ??= { mark, ids: [crypto.randomUUID(), crypto.randomUUID()] });
    change('lens part', partGlint(start, ids, { u: start.at.u + by.u, v: start.at.v + by.v }));
  }
  const drag = usePictureDrag({
    onStart: gesture.hold,
    onDrag: (by) => mark.isOn && move(by),
    onEnd() {
      held.current = undefined;
      gesture.end();
    },
    onClick: toggle,
  });

  return (
    <g
      className={own.mark}
      role="button"
      tabIndex={0}
      aria-label={name}
      aria-pressed={mark.isOn}
      data-chosen={chosen || undefined}
      transform={`translate(${mark.at.u * box.width} ${mark.at.v * box.height}) scale(${scale})`}
      onFocus={() => {
        if (!chosen) setView({ glint: mark.at });
      }}
      onBlur={gesture.end}
      onKeyDown={(event) => {
        const by = nudgeOf(event, NUDGE.step, NUDGE.coarse);
        const stops = mark.point?.stops ?? 0;
        const stronger = { '+': STOPS, '=': STOPS, '-': -STOPS }[event.key];
        if (by && mark.isOn) {
          move(by);
          held.current = undefined;
        } else if (['Enter', ' ', 'Delete', 'Backspace'].includes(event.key)) toggle();
        else if (stronger && mark.isOn)
          change('lens strength', strengthenGlints([mark], clampTo(stops + stronger, RANGES.level)));
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
      {...drag}
    >
      <circle className={classes.grip} r={GRIP} />
      <path d={mark.isOn ? corners : corners + struck} />
    </g>
  );
}
