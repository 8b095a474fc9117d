'use client';

import { pointsOf } from '@/core/geometry/points-of';
import { useRef, type KeyboardEvent, type RefObject } from 'react';
import { cameraOf } from '@/core/picture/camera-of';
import { middleOf } from '@/core/plane/middle-of';
import type { PlatePoint } from '@/core/geometry/camera';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { wallPieces } from '@/core/plan/wall-pieces';
import { wallGrid } from '@/core/plan/wall-grid';
import { groundGrid } from '@/core/geometry/ground-grid';
import { setPlan } from '@/core/scene/commands';
import { RANGES } from '@/core/fields/ranges';
import { useGesture } from '../../controls/use-gesture';
import { useScene, useView } from '../../editor/editor-context';
import { PlaceTint } from './place-tint';
import { SurfaceMarks } from './surface-marks';
import { useSayStroke } from './use-say-stroke';
import type { Box } from '../../picture/view-geometry';
import { BrushCircle } from '../../picture/brush-circle';
import { KeyBrush } from '../../picture/key-brush';
import { usePictureDrag } from '../../picture/use-picture-drag';
import classes from '../../picture/picture.module.css';

const GRID = { step: 1, reach: 30 };
const NUDGE = 0.001;

/** The ground plan in the picture: the horizon with an end at either edge, and a grid that lies on the ground. */
export function PlanMarks({ box, trail }: { box: Box; trail: RefObject<SVGPathElement | null> }) {
  const scene = useScene((state) => state.scene);
  const { horizon } = scene.plan;
  const camera = cameraOf(scene);
  const lines = [
    ...groundGrid(camera, GRID.step, GRID.reach),
    ...wallGrid(camera, wallPieces(camera, scene.plan.walls)),
  ];
  const path = lines
    .map(([a, b]) => `M${a.u * box.width} ${a.v * box.height}L${b.u * box.width} ${b.v * box.height}`)
    .join('');
  const isSaying = useView((view) => view.drawing === 'say');
  return (
    <>
      {isSaying && <PlaceTint box={box} />}
      <g className={classes.plan}>
        {!isSaying && <path className={classes.gridShade} d={path} />}
        {!isSaying && <path className={classes.grid} d={path} />}
        <line
          className={classes.horizon}
          x1={0}
          y1={horizon.left * box.height}
          x2={box.width}
          y2={horizon.right * box.height}
        />
        <HorizonEnd side="left" box={box} />
        <HorizonEnd side="right" box={box} />
      </g>
      {!isSaying && <SurfaceMarks box={box} />}
      <GuessMarks box={box} />
      <path ref={trail} className={classes.trail} />
      {isSaying && <SayingBrush box={box} trail={trail} />}
    </>
  );
}

/** The brush that says what a place is: a ring under the pointer, and one that arrow keys move and Enter presses. */
function SayingBrush({ box, trail }: { box: Box; trail: RefObject<SVGPathElement | null> }) {
  const { sayingSize, sayingAt, set } = useView((view) => view);
  const { dab } = useSayStroke(trail);
  const radius = sayingSize * box.width;
  return (
    <>
      <BrushCircle radius={radius} />
      <KeyBrush
        label="Brush: arrow keys move it, Enter paints"
        box={box}
        at={sayingAt}
        radius={radius}
        onMove={(at) => set({ sayingAt: at })}
        onPress={() => dab(sayingAt)}
      />
    </>
  );
}

/** How far below a guess its number stands, CSS pixels. */
const NUMBER_BELOW = 14;

/** What was guessed and waits to be taken, and what is being measured. */
function GuessMarks({ box }: { box: Box }) {
  const guess = useView((view) => view.guess);
  const parallel = useView((view) => view.parallel);
  const measured = useView((view) => view.measured);
  const line = ([a, b]: PlateLine) =>
    `M${a.u * box.width} ${a.v * box.height}L${b.u * box.width} ${b.v * box.height}`;
  const { horizon, walls = [], posts = [], things = [], decks = [] } = guess ?? {};
  const around = (outline: PlatePoint[]) =>
    `M${outline.map(({ u, v }) => `${u * box.width} ${v * box.height}`).join('L')}Z`;
  const number = (id: string, { u, v }: PlatePoint, n: string) => (
    <text key={id} className={classes.guessNumber} x={u * box.width} y={v * box.height + NUMBER_BELOW}>
      {n}
    </text>
  );
  const level =
    horizon &&
    line([
      { u: 0, v: horizon.left },
      { u: 1, v: horizon.right },
    ]);
  return (
    <>
      <path
        className={classes.guess}
        d={[
          level ?? '',
          ...walls.map(({ foot }) => line(foot)),
          ...posts.map(({ outline }) => around(outline)),
          ...things.map(({ loop }) => around(pointsOf(loop))),
          ...decks.map(({ outline }) => around(outline)),
        ].join('')}
      />
      {walls.map(({ id, foot: [a, b] }, i) =>
        number(id, { u: (a.u + b.u) / 2, v: (a.v + b.v) / 2 }, `w${i + 1}`),
      )}
      {posts.map(({ id, foot }, i) => number(id, foot, `p${i + 1}`))}
      {things.map(({ id, foot }, i) => number(id, foot, `t${i + 1}`))}
      {decks.map(({ id, outline }, i) => number(id, middleOf(outline), `d${i + 1}`))}
      {parallel && <path className={classes.measure} d={line(parallel)} />}
      {measured && <path className={classes.measure} d={line(measured)} />}
    </>
  );
}

function HorizonEnd({ side, box }: { side: 'left' | 'right'; box: Box }) {
  const plan = useScene(({ scene }) => scene.plan);
  const { horizon } = plan;
  const change = useScene((state) => state.change);
  const gesture = useGesture();
  const setView = useView((view) => view.set);
  const start = useRef(horizon[side]);
  const set = (value: number) => {
    const held = Math.min(RANGES.horizon.max, Math.max(RANGES.horizon.min, value));
    change(`plan horizon ${side}`, setPlan('Horizon', { horizon: { ...horizon, [side]: held } }));
  };
  const drag = usePictureDrag({
    onStart: () => {
      start.current = horizon[side];
      gesture.hold();
      setView({ surveyAt: plan });
    },
    onDrag: ({ v }) => set(start.current + v),
    onEnd: () => {
      gesture.end();
      setView({ surveyAt: undefined });
    },
  });
  function onKeyDown(event: KeyboardEvent): void {
    const by = { ArrowUp: -NUDGE, ArrowDown: NUDGE }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set(horizon[side] + by * (event.shiftKey ? 10 : 1));
  }
  const x = side === 'left' ? 14 : box.width - 14;
  const y = horizon[side] * box.height;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Horizon, ${side} end`}
      aria-orientation="vertical"
      aria-valuemin={RANGES.horizon.min}
      aria-valuemax={RANGES.horizon.max}
      aria-valuenow={Number(horizon[side].toFixed(3))}
      className={classes.horizonEnd}
      onKeyDown={onKeyDown}
      {...drag}
    >
      <circle className={classes.grip} cx={x} cy={y} r={18} />
      <rect x={x - 11} y={y - 5} width={22} height={10} rx={5} />
    </g>
  );
}
