'use client';

import { useStore } from 'zustand';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { notifications } from '@mantine/notifications';
import {
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type PointerEvent,
  type PropsWithChildren,
} from 'react';
import { framedSize, WHOLE_FRAME } from '@/core/frame/frame';
import type { PlatePoint } from '@/core/geometry/camera';
import type { Scene, SceneFrame } from '@/core/scene/schema';
import type { Size } from '@/engine/sizes';
import { useScene, useSession, useView } from '../editor/editor-context';
import { stepOf } from '../steps';
import type { Stage, StepInfo } from '../steps/step';
import { FirstGuessOffer } from '../editor/first-guess';
import { OfferMarks } from './offer-marks';
import { OverviewMap } from './overview-map';
import { buildUpSays } from '@/state/actions/build-up';
import { DayPane, NightPane, placesOf, useCanvases } from './panes';
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
  const plate = useScene(({ scene }) => scene.plate);
  const ownFrame = useScene(({ scene }) => scene.frame);
  const step = useView((v) => v.step);
  const probing = useView((v) => v.probing);
  const day = useView((v) => v.day || (stepOf(v.step).showsDay?.(v) ?? false));
  const look = useView((v) => v.look);
  const proof = useView((v) => v.proof);
  const setView = useView((v) => v.set);
  const { Surface, Tags, Over, wholePlate, drawsLive, followsPointer } = stepOf(step);
  const [pointer] = useState(() => createStore<{ at?: PlatePoint }>(() => ({})));
  const view = useRef<HTMLDivElement>(null);
  const canvases = useCanvases();
  const { night, coarse, day: dayCanvas, dayPart, live } = canvases;
  const trail = useRef<SVGPathElement>(null);
  const geometry = useGeometry(useSize(view), wholePlate ? WHOLE_FRAME : ownFrame, plate);
  const { density, panes, pane, frame, framed, place, box, regions } = geometry;
  usePreview({ session, canvases, regions, onFault });
  const gestures = useLookGestures({
    view,
    pane,
    plate: framed,
    density,
    look,
    onLook: (next) => setView({ look: next }),
  });

  const stage: Stage = { box, turned: frame.angle, night, day: dayCanvas, live, trail };
  const places = placesOf(place, box, frame);
  const at = (index: number): CSSProperties => ({ left: index * pane.width, width: pane.width });
  const isClose = look.zoom !== 'fit' && look.zoom >= 2;
  return (
    <main
      className={classes.view}
      ref={view}
      aria-label="Picture"
      data-close={isClose || undefined}
      {...gestures}
      onPointerMove={(event) => {
        if (probing || followsPointer) pointer.setState({ at: placeUnder(event, geometry) });
      }}
      onPointerLeave={() => pointer.setState({ at: undefined })}
    >
      <NightPane at={at(0)} {...{ places, night, coarse, live, drawsLive }} />
      <DayPane at={at(day ? 0 : panes - 1)} places={places} day={dayCanvas} dayPart={dayPart} isDay={day} />
      <MarksPane at={at(0)} places={places}>
        <Surface {...stage} />
        <OfferMarks box={box} />
        {Tags && <Tags {...stage} />}
      </MarksPane>
      {proof === 'wipe' && !day && <WipeHandle />}
      {probing && <ProbeAt pointer={pointer} night={[coarse, night]} day={[dayPart, dayCanvas]} />}
      {Over && <OverAt pointer={pointer} stage={stage} Over={Over} />}
      {look.zoom !== 'fit' && <OverviewMap part={visiblePart(pane, place)} />}
      <FirstGuessOffer day={dayCanvas} />
      <Says />
    </main>
  );
}

function onFault({ message }: Error): void {
  notifications.show({ color: 'red', title: 'The picture could not be made', message });
}

/** Where panes, frame and plate lie in a view, and what is to be computed of the picture. */
function useGeometry({ width, height }: Size, frame: SceneFrame | typeof WHOLE_FRAME, plate: Scene['plate']) {
  const look = useView((v) => v.look);
  const proof = useView((v) => v.proof);
  const density = typeof window === 'undefined' ? 1 : window.devicePixelRatio;
  const panes = proof === 'beside' ? 2 : 1;
  const pane = useMemo(() => ({ width: width / panes, height }), [width, height, panes]);
  const framed = useMemo(() => framedSize(plate, frame), [plate, frame]);
  const place = useMemo(() => plateBox(pane, framed, look, density), [pane, framed, look, density]);
  const box = useMemo(() => plateAround(place, frame), [place, frame]);
  const regions = useMemo(
    () => (pane.width > 0 ? previewRegions(pane, plate, frame, look, density) : undefined),
    [pane, plate, frame, look, density],
  );
  return { density, panes, pane, frame, framed, place, box, regions, plate };
}

type Geometry = ReturnType<typeof useGeometry>;

/** The place of the plate under the pointer, if the picture shows it. */
function placeUnder(event: PointerEvent, geometry: Geometry): PlatePoint | undefined {
  const edge = event.currentTarget.getBoundingClientRect();
  const { pane, place, frame, plate } = geometry;
  const x = ((event.clientX - edge.left) % pane.width) - place.left;
  const y = event.clientY - edge.top - place.top;
  if (x < 0 || y < 0 || x >= place.width || y >= place.height) return undefined;
  return placeInBox(place, frame, plate.width / plate.height, { x, y });
}

type MarksPaneProps = PropsWithChildren<{ at: CSSProperties; places: ReturnType<typeof placesOf> }>;

/** Where the open step's marks lie. */
function MarksPane({ at, places, children }: MarksPaneProps) {
  const day = useView((v) => v.day);
  const picking = useView((v) => v.picking);
  const marksStay = useView((v) => v.offer !== undefined || (stepOf(v.step).keepsMarks?.(v) ?? false));
  return (
    <div className={classes.pane} style={at}>
      <div
        className={classes.over}
        style={places.framed}
        data-quiet={day || undefined}
        data-shown={marksStay || undefined}
        data-picking={picking || undefined}
      >
        <div className={classes.plate} style={places.plate}>
          {children}
        </div>
      </div>
    </div>
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

/** What the picture says of itself, in its corner. */
function Says() {
  const day = useView((view) => view.day);
  if (day) return <span className={classes.says}>Day</span>;
  return (
    <>
      <div className={classes.lighting}>
        <span className={classes.says} role="status">
          Lighting the scene
        </span>
      </div>
      <BuildUpSays />
    </>
  );
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
