'use client';

import { useRef, useState, type KeyboardEvent } from 'react';
import { frameFromPlate, levelAngle, plateFromFrame, type Frame } from '@/core/frame/frame';
import type { PlatePoint } from '@/core/geometry/camera';
import { setFrame } from '@/core/scene/commands';
import { useGesture } from '../../controls/use-gesture';
import { useScene, useView } from '../../editor/editor-context';
import type { Box } from '../../picture/view-geometry';
import { nudgeOf } from '../../picture/nudge';
import { usePictureDrag } from '../../picture/use-picture-drag';
import classes from '../../picture/picture.module.css';

/** Which sides a handle moves: -1 the left or upper one, 1 the other, 0 none. */
type Handle = readonly [name: string, across: -1 | 0 | 1, down: -1 | 0 | 1];

const HANDLES: readonly Handle[] = [
  ['Upper left corner', -1, -1],
  ['Upper edge', 0, -1],
  ['Upper right corner', 1, -1],
  ['Right edge', 1, 0],
  ['Lower right corner', 1, 1],
  ['Lower edge', 0, 1],
  ['Lower left corner', -1, 1],
  ['Left edge', -1, 0],
];

const NUDGE = 0.005;
const LEAST = 0.05;

/** A frame with some of its sides moved; those across stay. `by` is in fractions of the frame. */
function resized(
  frame: Frame,
  aspect: number,
  ratio: number,
  [, across, down]: Handle,
  by: PlatePoint,
): Frame {
  let width = Math.max(LEAST, frame.width * (1 + across * by.u));
  let height = Math.max(LEAST, frame.height * (1 + down * by.v));
  if (ratio > 0) {
    if (across === 0) width = (height * ratio) / aspect;
    else height = (width * aspect) / ratio;
  }
  // The middle goes half as far as the side that is dragged.
  const middle = plateFromFrame(frame, aspect, {
    u: 0.5 + (across * (width - frame.width)) / frame.width / 2,
    v: 0.5 + (down * (height - frame.height)) / frame.height / 2,
  });
  return { ...frame, ...middle, width, height };
}

/** The frame over the plate: dragged inside, at its edges and corners; or a line along which it is levelled. */
export function FrameMarks({ box }: { box: Box }) {
  const frame = useScene(({ scene }) => scene.frame);
  const plate = useScene(({ scene }) => scene.plate);
  const change = useScene((state) => state.change);
  const levelling = useView((view) => view.levelling);
  const gesture = useGesture();
  const start = useRef(frame);
  const aspect = plate.width / plate.height;
  const set = (label: string, next: Partial<Frame>) => change(`frame ${label}`, setFrame(label, next));
  const at = (u: number, v: number) => {
    const place = plateFromFrame(frame, aspect, { u, v });
    return `${place.u * box.width} ${place.v * box.height}`;
  };
  const outline = `M${at(0, 0)}L${at(1, 0)}L${at(1, 1)}L${at(0, 1)}Z`;
  const begin = () => {
    start.current = frame;
    gesture.hold();
  };
  const move = (by: PlatePoint) =>
    set('Move the frame', { u: start.current.u + by.u, v: start.current.v + by.v });
  const drag = usePictureDrag({ onStart: begin, onDrag: move, onEnd: gesture.end });
  return (
    <g className={classes.frame}>
      <path className={classes.dim} fillRule="evenodd" d={`M0 0H${box.width}V${box.height}H0Z${outline}`} />
      <path className={classes.edge} d={outline} data-testid="frame" {...drag} />
      {HANDLES.map((handle) => (
        <FrameHandle key={handle[0]} handle={handle} box={box} aspect={aspect} />
      ))}
      {levelling && <LevelLine box={box} aspect={aspect} />}
    </g>
  );
}

function FrameHandle({ handle, box, aspect }: { handle: Handle; box: Box; aspect: number }) {
  const frame = useScene(({ scene }) => scene.frame);
  const change = useScene((state) => state.change);
  const gesture = useGesture();
  const start = useRef(frame);
  const [name, across, down] = handle;
  const set = (from: Frame & { ratio: number }, by: PlatePoint) =>
    change(`frame ${name}`, setFrame('Size of the frame', resized(from, aspect, from.ratio, handle, by)));
  const drag = usePictureDrag({
    onStart: () => {
      start.current = frame;
      gesture.hold();
    },
    onDrag: (_by, at, _event, from) => {
      const [a, b] = [from, at].map((place) => frameFromPlate(start.current, aspect, place));
      set(start.current, { u: b.u - a.u, v: b.v - a.v });
    },
    onEnd: gesture.end,
  });
  function onKeyDown(event: KeyboardEvent): void {
    const by = nudgeOf(event, NUDGE);
    if (!by) return;
    event.preventDefault();
    set(frame, by);
  }
  const { u, v } = plateFromFrame(frame, aspect, { u: 0.5 + across / 2, v: 0.5 + down / 2 });
  const [x, y] = [u * box.width, v * box.height];
  return (
    <g role="button" tabIndex={0} aria-label={name} onKeyDown={onKeyDown} onBlur={gesture.end} {...drag}>
      <circle className={classes.grip} cx={x} cy={y} r={14} />
      <circle className={classes.corner} cx={x} cy={y} r={across && down ? 5 : 4} />
    </g>
  );
}

/** A line that is drawn along something level; the frame turns to it when it is let go. */
function LevelLine({ box, aspect }: { box: Box; aspect: number }) {
  const run = useScene((state) => state.run);
  const setView = useView((view) => view.set);
  const [line, setLine] = useState<[PlatePoint, PlatePoint]>();
  const drag = usePictureDrag({
    onDrag: (_by, at, _event, from) => setLine([from, at]),
    onEnd: () => {
      if (line) run(setFrame('Level the frame', { angle: levelAngle(line[0], line[1], aspect) }));
      setView({ levelling: false });
    },
  });
  return (
    <>
      <rect className={classes.sheet} width={box.width} height={box.height} data-testid="level" {...drag} />
      {line && (
        <line
          className={classes.level}
          x1={line[0].u * box.width}
          y1={line[0].v * box.height}
          x2={line[1].u * box.width}
          y2={line[1].v * box.height}
        />
      )}
    </>
  );
}
