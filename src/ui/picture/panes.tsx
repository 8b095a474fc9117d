'use client';

import { useMemo, useRef, type CSSProperties, type RefObject } from 'react';
import { api } from '@/state/session/api';
import { ServedImage } from '../controls/served-image';
import { useScene, useView } from '../editor/editor-context';
import type { Box } from './view-geometry';
import classes from './picture.module.css';

type Canvas = RefObject<HTMLCanvasElement | null>;

/** The canvases of night and day: the fine one of each, and what covers it while that is made. */
export interface Canvases {
  night: Canvas;
  coarse: Canvas;
  day: Canvas;
  dayPart: Canvas;
  /** What is drawn over the night while a stroke is under way. */
  live: Canvas;
}

export function useCanvases(): Canvases {
  const night = useRef<HTMLCanvasElement>(null);
  const coarse = useRef<HTMLCanvasElement>(null);
  const day = useRef<HTMLCanvasElement>(null);
  const dayPart = useRef<HTMLCanvasElement>(null);
  const live = useRef<HTMLCanvasElement>(null);
  return useMemo(() => ({ night, coarse, day, dayPart, live }), []);
}

/** Where the frame lies in a pane, and the plate in the frame. */
interface Places {
  framed: CSSProperties;
  plate: CSSProperties;
}

export const placesOf = (
  { left, top, width, height }: Box,
  box: Box,
  frame: { angle: number; u: number; v: number },
): Places => ({
  framed: { left, top, width, height },
  plate: {
    ...box,
    transform: `rotate(${-frame.angle}deg)`,
    transformOrigin: `${100 * frame.u}% ${100 * frame.v}%`,
  },
});

interface PaneProps {
  /** Where the pane lies in the view. */
  at: CSSProperties;
  places: Places;
}

type NightPaneProps = PaneProps & Pick<Canvases, 'night' | 'coarse' | 'live'> & { drawsLive?: boolean };

export function NightPane({ at, places, night, coarse, live, drawsLive }: NightPaneProps) {
  const id = useScene((state) => state.id);
  return (
    <div className={classes.pane} style={at}>
      <div className={classes.framed} style={places.framed}>
        <ServedImage className={classes.opening} src={api.opening(id)} alt="" data-testid="opening" />
        <div className={classes.plate} style={places.plate}>
          <canvas ref={night} className={classes.canvas} data-testid="night" />
          <canvas ref={coarse} className={classes.canvas} aria-hidden />
          {drawsLive && <canvas ref={live} className={classes.live} data-testid="live" aria-hidden />}
        </div>
      </div>
    </div>
  );
}

type DayPaneProps = PaneProps & Pick<Canvases, 'day' | 'dayPart'> & { isDay: boolean };

export function DayPane({ at, places, day, dayPart, isDay }: DayPaneProps) {
  const proof = useView((view) => view.proof);
  const wipe = useView((view) => view.wipe);
  const shown = isDay || proof !== 'night';
  const cut = !isDay && proof === 'wipe' ? `inset(0 0 0 ${100 * wipe}%)` : undefined;
  return (
    <div
      className={classes.pane}
      style={{ ...at, visibility: shown ? 'visible' : 'hidden', clipPath: cut }}
      data-testid="day-pane"
    >
      <div className={classes.framed} style={places.framed}>
        <div className={classes.plate} style={places.plate}>
          <canvas ref={day} className={classes.canvas} data-testid="day" />
          <canvas ref={dayPart} className={classes.canvas} aria-hidden />
        </div>
      </div>
    </div>
  );
}
