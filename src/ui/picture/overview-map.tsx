'use client';

import type { PointerEvent } from 'react';
import { framedSize } from '@/core/frame/frame';
import { api } from '@/state/session/api';
import { useScene, useView } from '../editor/editor-context';
import type { Box } from './view-geometry';
import { ServedImage } from '../controls/served-image';
import classes from './picture.module.css';

/** The whole plate, small, with the part in view; a click or a drag on it moves there. Shown while zoomed in. */
export function OverviewMap({ part }: { part: Box }) {
  const id = useScene((state) => state.id);
  const plate = useScene(({ scene }) => scene.plate);
  const frame = useScene(({ scene }) => scene.frame);
  const { width, height } = framedSize(plate, frame);
  const look = useView((view) => view.look);
  const setView = useView((view) => view.set);
  const goTo = (event: PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    const center = { u: (event.clientX - box.left) / box.width, v: (event.clientY - box.top) / box.height };
    setView({ look: { ...look, center } });
  };
  const percent = (value: number) => `${100 * value}%`;
  return (
    <div
      className={classes.map}
      style={{ aspectRatio: `${width} / ${height}` }}
      aria-hidden
      data-testid="overview"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        goTo(event);
      }}
      onPointerMove={(event) => {
        if (event.buttons === 1) goTo(event);
      }}
    >
      <ServedImage src={api.thumbnail(id, 'day', Object.values(frame).join('_'))} alt="" />
      <span
        style={{
          left: percent(part.left),
          top: percent(part.top),
          width: percent(part.width),
          height: percent(part.height),
        }}
      />
    </div>
  );
}
