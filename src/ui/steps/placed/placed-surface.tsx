'use client';

import { notifications } from '@mantine/notifications';
import { useRef, type DragEvent } from 'react';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { cameraOf } from '@/core/picture/camera-of';
import { cardCorners, cardOf, cardPoint } from '@/core/placed/placed-card';
import { groundOf } from '@/core/placed/placed-land';
import { project } from '@/core/geometry/camera';
import { removePlaced, setPlaced } from '@/core/scene/placed-commands';
import type { Placed, Scene } from '@/core/scene/schema';
import { newPlaced } from '@/state/actions/placed-actions';
import { useScene, useView } from '../../editor/editor-context';
import { placeOnSvg } from '../../picture/place-on-svg';
import { PlaceHandle } from '../../picture/place-handle';
import { useGesture } from '../../controls/use-gesture';
import { usePictureDrag } from '../../picture/use-picture-drag';
import { useWheel } from '../../picture/use-wheel';
import type { Box } from '../../picture/view-geometry';
import { MarksSvg } from '../marks-svg';
import type { Stage } from '../step';
import { usePlacePicture } from './use-place-picture';
import classes from '../../picture/picture.module.css';

const SIZE = { grip: 15, knob: 5 };
const NUDGE = { step: 0.004, coarse: 5 };
const WHEEL_STEP = 1.05;

/** Placed pictures on the photo: each is dragged where it should stand; its top says how tall it is. A file that is dropped is placed. */
export function PlacedSurface(stage: Stage) {
  const placed = useScene(({ scene }) => scene.placed);
  const setView = useView((view) => view.set);
  const { take } = usePlacePicture();
  const idle = usePictureDrag({
    onDrag: () => {},
    onEnd: () => {},
    onClick: () => setView({ placed: undefined }),
  });
  const gestures = {
    ...idle,
    onDragOver: (event: DragEvent) => event.preventDefault(),
    onDrop(event: DragEvent<SVGSVGElement>) {
      event.preventDefault();
      const file = event.dataTransfer.files.item(0);
      if (file) void take(file, placeOnSvg(event.currentTarget, event));
      else notifications.show({ color: 'yellow', message: 'Drop a file: a picture to be placed.' });
    },
  };
  return (
    <MarksSvg stage={stage} gestures={gestures}>
      {placed.map((one) => (
        <PlacedMark key={one.id} placed={one} box={stage.box} />
      ))}
      <ArrivingPicture box={stage.box} />
    </MarksSvg>
  );
}

/** A picture on its way in, in its place: seen at once, and lit when it is there. */
function ArrivingPicture({ box }: { box: Box }) {
  const scene = useScene((state) => state.scene);
  const arriving = useView((view) => view.arriving);
  if (!arriving) return null;
  const { copy, name, at } = arriving;
  const { corners } = lieOf(scene, newPlaced(scene, { ...copy, asset: '' }, name, at));
  const [low, , right, left] = corners.map(({ u, v }) => [u * box.width, v * box.height]);
  if (!left) return null;
  const [across, down] = [right, low].map(([x, y]) => [x - left[0], y - left[1]]);
  return (
    <image
      className={classes.arriving}
      href={copy.url}
      width={1}
      height={1}
      preserveAspectRatio="none"
      transform={`matrix(${[...across, ...down, ...left].join(' ')})`}
      role="img"
      aria-label={`${name}, on its way in`}
    />
  );
}

/** Where a placed picture is seen: its corners, its top, and the way from foot to top on the plate. */
function lieOf(scene: Scene, placed: Placed) {
  const { foot } = placed;
  const camera = cameraOf(scene);
  const card = cardOf(camera, groundOf(camera, scene.plan), placed);
  const top = project(camera, cardPoint(card, 0.5, 1)) ?? foot;
  const long = Math.max(1e-3, Math.hypot(top.u - foot.u, top.v - foot.v));
  const [along, down] = [(top.u - foot.u) / long, (top.v - foot.v) / long];
  return { corners: cardCorners(camera, card), top, long, along, down };
}

/** What a gesture changes of a placed picture. */
function useChanges({ id, name }: Placed) {
  const change = useScene((state) => state.change);
  return {
    resize: (to: number) =>
      change(`placed ${id} tall`, setPlaced(`${name}: height`, id, { tall: clampTo(to, RANGES.placedTall) })),
    move: (from: Placed['foot'], by: Placed['foot']) =>
      change(
        `placed ${id} foot`,
        setPlaced(`Move ${name}`, id, { foot: { u: from.u + by.u, v: from.v + by.v } }),
      ),
  };
}

function PlacedMark({ placed, box }: { placed: Placed; box: Box }) {
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const chosen = useView((view) => view.placed === placed.id);
  const setView = useView((view) => view.set);
  const gesture = useGesture();
  const start = useRef(placed.foot);
  const group = useRef<SVGGElement>(null);
  const { id, name, foot, tall } = placed;
  const choose = () => setView({ placed: id });
  const { move, resize } = useChanges(placed);
  useWheel(group, WHEEL_STEP, (factor) => resize(tall * factor));
  const drag = usePictureDrag({
    onStart() {
      start.current = foot;
      gesture.hold();
      choose();
    },
    onDrag: (by) => move(start.current, by),
    onEnd: gesture.end,
    onClick: choose,
  });
  const { corners, top, long, along, down } = lieOf(scene, placed);
  return (
    <g ref={group} className={classes.surround} data-chosen={chosen || undefined} onFocus={choose}>
      <polygon
        className={classes.placed}
        data-chosen={chosen || undefined}
        points={corners.map(({ u, v }) => `${u * box.width},${v * box.height}`).join(' ')}
        {...drag}
      />
      <PlaceHandle
        label={`${name}, foot`}
        x={foot.u * box.width}
        y={foot.v * box.height}
        size={SIZE}
        nudge={NUDGE}
        value={foot}
        onHold={(isHeld) => isHeld && choose()}
        onRemove={() => run(removePlaced(id))}
        onMove={move}
      />
      {chosen && (
        <PlaceHandle
          label={`${name}, height`}
          x={top.u * box.width}
          y={top.v * box.height}
          size={SIZE}
          nudge={NUDGE}
          value={{ tall, long }}
          onMove={(from, by) => resize(from.tall * (1 + (by.u * along + by.v * down) / from.long))}
        />
      )}
    </g>
  );
}
