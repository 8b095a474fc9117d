'use client';

import { useEffect, useRef } from 'react';
import type { Camera, PlatePoint } from '@/core/geometry/camera';
import { horizonAt } from '@/core/geometry/ground';
import { cameraOf } from '@/core/picture/camera-of';
import { projectDirection, skyDirection, skyPlaceAt } from '@/core/sky/direction';
import { MOON_RADIUS } from '@/core/sky/moon-disc';
import { clampTo, RANGES } from '@/core/fields/ranges';
import { setSky, setSkyPart, raiseMoon, setStarFall } from '@/core/scene/sky-commands';
import { useGesture } from '../../controls/use-gesture';
import { useScene } from '../../editor/editor-context';
import { PlaceHandle } from '../../picture/place-handle';
import type { Box } from '../../picture/view-geometry';
import classes from '../../picture/picture.module.css';

const SIZE = { grip: 16, knob: 5 };
const NUDGE = { step: 0.005, coarse: 5 };

/** How many times larger a turn of the wheel makes the moon. */
const WHEEL = 1.08;

const placeOf = (camera: Camera, azimuth: number, elevation: number): PlatePoint | undefined =>
  projectDirection(camera, skyDirection({ azimuth, elevation }));

/** Where the sun went: a mark on the horizon, at the picture's edge while it lies outside. */
export function SunMark({ box }: { box: Box }) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const camera = cameraOf(scene);
  const { sun } = scene.sky;
  const seen = placeOf(camera, sun, 0);
  const u = seen ? clampTo(seen.u, { min: 0, max: 1 }) : sun < 0 ? 0 : 1;
  const v = horizonAt(scene.plan.horizon, u);
  return (
    <g className={classes.surround}>
      <path
        className={classes.outline}
        d={`M${u * box.width - 26} ${v * box.height}h52M${u * box.width - 12} ${v * box.height}a12 12 0 0 1 24 0`}
      />
      <PlaceHandle
        label="Where the sun went"
        x={u * box.width}
        y={v * box.height}
        size={SIZE}
        nudge={NUDGE}
        value={u}
        onMove={(from, by) => {
          const at = from + by.u;
          const { azimuth } = skyPlaceAt(camera, { u: at, v: horizonAt(scene.plan.horizon, at) });
          change('sky sun', setSky('Sun went', { sun: Math.round(clampTo(azimuth, RANGES.azimuth)) }));
        }}
      />
    </g>
  );
}

/** How far from its middle the end lies by which the line is tilted, fraction of the width. */
const ARM = 0.18;

/** The line under which stars end: dragged at its middle, tilted at its end. */
export function FallMarks({ box }: { box: Box }) {
  const fall = useScene(({ scene }) => scene.sky.stars.fall);
  const change = useScene((state) => state.change);
  const [x, y] = [fall.at.u * box.width, fall.at.v * box.height];
  const turn = (fall.turn * Math.PI) / 180;
  const [along, down] = [Math.cos(turn) * box.width, Math.sin(turn) * box.width];
  return (
    <g className={classes.surround}>
      <line
        className={classes.outline}
        x1={x - 0.5 * along}
        y1={y - 0.5 * down}
        x2={x + 0.5 * along}
        y2={y + 0.5 * down}
      />
      <PlaceHandle
        label="Where stars end"
        x={x}
        y={y}
        size={SIZE}
        nudge={NUDGE}
        value={fall.at}
        onMove={(from, by) => change('sky fall', setStarFall({ at: { u: from.u + by.u, v: from.v + by.v } }))}
      />
      <PlaceHandle
        label="Tilt of where stars end"
        x={x + ARM * along}
        y={y + ARM * down}
        size={SIZE}
        nudge={NUDGE}
        value={fall.turn}
        onMove={(from, by) => {
          const was = (from * Math.PI) / 180;
          const [dx, dy] = [
            ARM * Math.cos(was) * box.width + by.u * box.width,
            ARM * Math.sin(was) * box.width + by.v * box.height,
          ];
          const turned = (Math.atan2(dy, dx) * 180) / Math.PI;
          change('sky fall turn', setStarFall({ turn: Math.round(clampTo(turned, RANGES.tilt)) }));
        }}
      />
    </g>
  );
}

/** The moon in the picture: dragged, and sized by the wheel over it. */
export function MoonMark({ box }: { box: Box }) {
  const scene = useScene((state) => state.scene);
  const change = useScene((state) => state.change);
  const gesture = useGesture();
  const group = useRef<SVGGElement>(null);
  const camera = cameraOf(scene);
  const { moon, sky } = scene;
  const at = placeOf(camera, moon.azimuth, moon.elevation);
  const { size } = sky.moon;

  useEffect(() => {
    const element = group.current;
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      event.stopPropagation();
      const next = clampTo(size * (event.deltaY < 0 ? WHEEL : 1 / WHEEL), RANGES.moonSize);
      change('sky moon size', setSkyPart('Moon: size', 'moon', { size: next }));
      gesture.end();
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  });

  if (!at || at.u < -0.1 || at.u > 1.1 || at.v < -0.1 || at.v > 1.1) return null;
  const radius = MOON_RADIUS * size * camera.focal * box.width;
  return (
    <g className={classes.surround} ref={group}>
      <circle
        className={classes.outline}
        cx={at.u * box.width}
        cy={at.v * box.height}
        r={Math.max(8, radius + 4)}
      />
      <PlaceHandle
        label="Moon in the picture"
        x={at.u * box.width}
        y={at.v * box.height}
        size={{ grip: Math.max(16, radius), knob: 3 }}
        nudge={NUDGE}
        value={at}
        onMove={(from, by) => {
          const { azimuth, elevation } = skyPlaceAt(camera, { u: from.u + by.u, v: from.v + by.v });
          change('moon place', raiseMoon({ azimuth, elevation: clampTo(elevation, RANGES.elevation) }));
        }}
      />
    </g>
  );
}
