'use client';

import { useStore } from 'zustand';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { notifications } from '@mantine/notifications';
import { useCallback, useMemo, useRef, useState, type CSSProperties, type PointerEvent } from 'react';
import { framedSize, WHOLE_FRAME } from '@/core/frame/frame';
import type { PlatePoint } from '@/core/geometry/camera';
import { useScene, useSession, useView } from '../editor/editor-context';
import { stepOf } from '../steps';
import type { Stage, StepInfo } from '../steps/step';
import { OverviewMap } from './overview-map';
import { api } from '@/state/session/api';
import { buildUpSays } from '@/state/actions/build-up';
import { ServedImage } from '../controls/served-image';
import { Probe, type ProbeProps } from './probe';
import { previewRegions } from './preview-regions';
import { useLookGestures } from './use-look-gestures';
import { usePreview } from './use-preview';
import { useSize } from './use-size';
import { placeInBox, plateAround, plateBox, visiblePart } from './view-geometry';
import { WipeHandle } from './wipe-handle';
import classes from './picture.module.css';

/** The picture, and the marks of the open step on it. */
export function Picture() {
  const session = useSession();
  const id = useScene((state) => state.id);
  const plate = useScene(({ scene }) => scene.plate);
  const ownFrame = useScene(({ scene }) => scene.frame);
  const step = useView((v) => v.step);
  const probing = useView((v) => v.probing);
  const day = useView((v) => v.day);
  const picking = useView((v) => v.picking);
  const look = useView((v) => v.look);
  const proof = useView((v) => v.proof);
  const wipe = useView((v) => v.wipe);
  const setView = useView((v) => v.set);
  const { Surface, Tags, Over, wholePlate, drawsLive, followsPointer, keepsMarks } = stepOf(step);
  const marksStay = useView((v) => keepsMarks?.(v) ?? false);
  const [pointer] = useState(() => createStore<{ at?: PlatePoint }>(() => ({})));
  const view = useRef<HTMLDivElement>(null);
  const night = useRef<HTMLCanvasElement>(null);
  const coarse = useRef<HTMLCanvasElement>(null);
  const dayCanvas = useRef<HTMLCanvasElement>(null);
  const dayPart = useRef<HTMLCanvasElement>(null);
  const live = useRef<HTMLCanvasElement>(null);
  const trail = useRef<SVGPathElement>(null);
  const { width, height } = useSize(view);
  const density = typeof window === 'undefined' ? 1 : window.devicePixelRatio;
  const panes = proof === 'beside' ? 2 : 1;
  const pane = useMemo(() => ({ width: width / panes, height }), [width, height, panes]);
  const frame = wholePlate ? WHOLE_FRAME : ownFrame;
  const framed = useMemo(() => framedSize(plate, frame), [plate, frame]);
  const place = useMemo(() => plateBox(pane, framed, look, density), [pane, framed, look, density]);
  const box = useMemo(() => plateAround(place, frame), [place, frame]);
  const regions = useMemo(
    () => (pane.width > 0 ? previewRegions(pane, plate, frame, look, density) : undefined),
    [pane, plate, frame, look, density],
  );
  const onFault = useCallback((error: Error) => {
    notifications.show({ color: 'red', title: 'The picture could not be made', message: error.message });
  }, []);
  usePreview({ session, canvases: { night, coarse, day: dayCanvas, dayPart }, regions, onFault });
  const gestures = useLookGestures({
    view,
    pane,
    plate: framed,
    density,
    look,
    onLook: (next) => setView({ look: next }),
  });

  /** The place of the plate under the pointer, if the picture shows it. */
  function placeOf(event: PointerEvent): PlatePoint | undefined {
    const edge = view.current!.getBoundingClientRect();
    const x = ((event.clientX - edge.left) % pane.width) - place.left;
    const y = event.clientY - edge.top - place.top;
    if (x < 0 || y < 0 || x >= place.width || y >= place.height) return undefined;
    return placeInBox(place, frame, plate.width / plate.height, { x, y });
  }

  const stage: Stage = { box, turned: frame.angle, night, day: dayCanvas, live, trail };
  const framedAt = { left: place.left, top: place.top, width: place.width, height: place.height };
  const plateAt: CSSProperties = {
    ...box,
    transform: `rotate(${-frame.angle}deg)`,
    transformOrigin: `${100 * frame.u}% ${100 * frame.v}%`,
  };
  const dayShown = day || proof !== 'night';
  const cut = !day && proof === 'wipe' ? `inset(0 0 0 ${100 * wipe}%)` : undefined;
  const at = (index: number): CSSProperties => ({ left: index * pane.width, width: pane.width });
  return (
    <main
      className={classes.view}
      ref={view}
      aria-label="Picture"
      data-close={(look.zoom !== 'fit' && look.zoom >= 2) || undefined}
      {...gestures}
      onPointerMove={(event) => {
        if (probing || followsPointer) pointer.setState({ at: placeOf(event) });
      }}
      onPointerLeave={() => pointer.setState({ at: undefined })}
    >
      <div className={classes.pane} style={at(0)}>
        <div className={classes.framed} style={framedAt}>
          <ServedImage className={classes.opening} src={api.opening(id)} alt="" data-testid="opening" />
          <div className={classes.plate} style={plateAt}>
            <canvas ref={night} className={classes.canvas} data-testid="night" />
            <canvas ref={coarse} className={classes.canvas} aria-hidden />
            {drawsLive && <canvas ref={live} className={classes.live} aria-hidden />}
          </div>
        </div>
      </div>
      <div
        className={classes.pane}
        style={{ ...at(day ? 0 : panes - 1), visibility: dayShown ? 'visible' : 'hidden', clipPath: cut }}
        data-testid="day-pane"
      >
        <div className={classes.framed} style={framedAt}>
          <div className={classes.plate} style={plateAt}>
            <canvas ref={dayCanvas} className={classes.canvas} data-testid="day" />
            <canvas ref={dayPart} className={classes.canvas} aria-hidden />
          </div>
        </div>
      </div>
      <div className={classes.pane} style={at(0)}>
        <div
          className={classes.over}
          style={framedAt}
          data-quiet={day || undefined}
          data-shown={marksStay || undefined}
          data-picking={picking || undefined}
        >
          <div className={classes.plate} style={plateAt}>
            <Surface {...stage} />
            {Tags && <Tags {...stage} />}
          </div>
        </div>
      </div>
      {proof === 'wipe' && !day && <WipeHandle />}
      {probing && <ProbeAt pointer={pointer} night={[coarse, night]} day={[dayPart, dayCanvas]} />}
      {Over && <OverAt pointer={pointer} stage={stage} Over={Over} />}
      {look.zoom !== 'fit' && <OverviewMap part={visiblePart(pane, place)} />}
      {!day && (
        <div className={classes.lighting}>
          <span className={classes.says} role="status">
            Lighting the scene
          </span>
        </div>
      )}
      {day && <span className={classes.says}>Day</span>}
      {!day && <BuildUpSays />}
    </main>
  );
}

type Pointer = StoreApi<{ at?: PlatePoint }>;

/** The values under the pointer; it alone is drawn again as the pointer moves. */
function ProbeAt({ pointer, ...canvases }: { pointer: Pointer } & Omit<ProbeProps, 'at'>) {
  const at = useStore(pointer, (now) => now.at);
  return at && <Probe at={at} {...canvases} />;
}

/** What a step shows over the picture, with the place under the pointer while no values are read there. */
function OverAt({
  pointer,
  stage,
  Over,
}: {
  pointer: Pointer;
  stage: Stage;
  Over: NonNullable<StepInfo['Over']>;
}) {
  const at = useStore(pointer, (now) => now.at);
  const probing = useView((view) => view.probing);
  return <Over {...stage} pointer={probing ? undefined : at} />;
}

/** Which circuit came on last, while the scene builds up from dark. */
function BuildUpSays() {
  const scene = useScene((state) => state.scene);
  const buildUp = useView((view) => view.buildUp);
  if (buildUp === undefined) return null;
  return (
    <span className={classes.says} role="status">
      {buildUpSays(scene, Math.min(buildUp, scene.circuits.length))}
    </span>
  );
}
