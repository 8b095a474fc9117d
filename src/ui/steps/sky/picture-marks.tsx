'use client';

import { clampTo, RANGES } from '@/core/fields/ranges';
import { setSkyPicture } from '@/core/scene/sky-commands';
import { useScene } from '../../editor/editor-context';
import { PlaceHandle } from '../../picture/place-handle';
import type { Box } from '../../picture/view-geometry';
import classes from '../../picture/picture.module.css';

const SIZE = { grip: 16, knob: 5 };
const NUDGE = { step: 0.005, coarse: 5 };

/** The frame of a picture of a sky: dragged at its middle, widened at its right side. */
export function SkyPictureMarks({ box }: { box: Box }) {
  const picture = useScene(({ scene }) => scene.sky.picture);
  const change = useScene((state) => state.change);
  if (!picture) return null;
  const { at, across, turn, width, height } = picture;
  const [x, y] = [at.u * box.width, at.v * box.height];
  const [wide, high] = [across * box.width, (across * box.width * height) / width];
  const angle = (turn * Math.PI) / 180;
  // A handle far outside of the picture could not be reached.
  const arm = Math.min(wide / 2, 0.45 * box.width);
  return (
    <g className={classes.surround}>
      <rect
        className={classes.outline}
        x={x - wide / 2}
        y={y - high / 2}
        width={wide}
        height={high}
        transform={`rotate(${turn} ${x} ${y})`}
      />
      <PlaceHandle
        label="Middle of the sky’s picture"
        x={x}
        y={Math.max(12, y)}
        size={SIZE}
        nudge={NUDGE}
        value={at}
        onMove={(from, by) =>
          change(
            'sky picture at',
            setSkyPicture('Place the sky’s picture', { at: { u: from.u + by.u, v: from.v + by.v } }),
          )
        }
      />
      <PlaceHandle
        label="Width of the sky’s picture"
        x={x + arm * Math.cos(angle)}
        y={Math.max(12, y) + arm * Math.sin(angle)}
        size={SIZE}
        nudge={NUDGE}
        value={across}
        onMove={(from, by) => {
          const next = clampTo(from * (1 + (by.u * box.width) / arm), RANGES.skyAcross);
          change('sky picture across', setSkyPicture('Sky’s picture: Width', { across: next }));
        }}
      />
    </g>
  );
}
