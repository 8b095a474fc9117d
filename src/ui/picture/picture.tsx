'use client';

import { notifications } from '@mantine/notifications';
import { useCallback, useMemo, useRef, useState, type CSSProperties, type PointerEvent } from 'react';
import { framedSize, WHOLE_FRAME } from '@/core/frame/frame';
import type { PlatePoint } from '@/core/plan/camera';
import { setFixture } from '@/core/scene/commands';
import type { Fixture } from '@/core/scene/schema';
import { useScene, useSession, useView } from '../editor/editor-context';
import { FixtureMark } from './fixture-mark';
import { FrameMarks } from './frame-marks';
import { FixtureTag } from './fixture-tag';
import { MatteMarks } from './matte-marks';
import { OverviewMap } from './overview-map';
import { api } from '@/state/api';
import { buildUpSays } from '@/state/build-up';
import { ServedImage } from '../controls/served-image';
import { pickColor } from './pick-color';
import { PlanMarks } from './plan-marks';
import { PlanProbe } from './plan-probe';
import { PopUpView } from './pop-up-view';
import { Probe } from './probe';
import { previewRegions } from './preview-regions';
import { SurroundMarks } from './surround-marks';
import { usePlanGestures } from './use-plan-gestures';
import { useMatteGestures } from './use-matte-gestures';
import { TwinMarks } from './twin-marks';
import { useFixtureGestures } from './use-fixture-gestures';
import { useLookGestures } from './use-look-gestures';
import { usePictureDrag } from './use-picture-drag';
import { usePreview } from './use-preview';
import { useSize } from './use-size';
import { placeInBox, plateAround, plateBox, visiblePart } from './view-geometry';
import { WipeHandle } from './wipe-handle';
import classes from './picture.module.css';

/** Up to so many fixtures all show where they stand; of more only the one at hand does. */
const FEW = 8;

/** The picture, and the marks of the open step on it. */
export function Picture() {
  const session = useSession();
  const id = useScene((state) => state.id);
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const {
    step,
    nightPart,
    probing,
    chosen,
    buildUp,
    guess,
    twins,
    popUp,
    moving,
    day,
    picking,
    look,
    proof,
    wipe,
    set: setView,
  } = useView((v) => v);
  const [pointer, setPointer] = useState<PlatePoint>();
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
  const { plate } = scene;
  // While the frame is being set, all of the plate is there to choose from.
  const frame = step === 'frame' ? WHOLE_FRAME : scene.frame;
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

  const fixture = scene.fixtures.find(({ id }) => id === chosen);

  function pickGel(at: PlatePoint, { id, name, gel }: Fixture): void {
    const picked = { ...gel, from: 'picture' as const, color: pickColor(dayCanvas.current!, at) };
    run(setFixture(`${name}: gel off the picture`, id, { gel: picked }));
    setView({ picking: false });
  }

  const picksGel = picking && fixture ? (at: PlatePoint) => pickGel(at, fixture) : undefined;
  const fixtureGestures = useFixtureGestures(trail, picksGel);
  const ground = usePictureDrag({ onDrag: () => {}, onEnd: () => {} });
  const planGestures = usePlanGestures(trail);
  const matteGestures = useMatteGestures({ day: dayCanvas, live, trail, night });

  /** The place of the plate under the pointer, if the picture shows it. */
  function placeOf(event: PointerEvent): PlatePoint | undefined {
    const edge = view.current!.getBoundingClientRect();
    const x = ((event.clientX - edge.left) % pane.width) - place.left;
    const y = event.clientY - edge.top - place.top;
    if (x < 0 || y < 0 || x >= place.width || y >= place.height) return undefined;
    return placeInBox(place, frame, plate.width / plate.height, { x, y });
  }

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
        if (probing || step === 'plan') setPointer(placeOf(event));
      }}
      onPointerLeave={() => setPointer(undefined)}
    >
      <div className={classes.pane} style={at(0)}>
        <div className={classes.framed} style={framedAt}>
          <ServedImage className={classes.opening} src={api.opening(id)} alt="" data-testid="opening" />
          <div className={classes.plate} style={plateAt}>
            <canvas ref={night} className={classes.canvas} data-testid="night" />
            <canvas ref={coarse} className={classes.canvas} aria-hidden />
            {step === 'mattes' && <canvas ref={live} className={classes.live} aria-hidden />}
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
          data-shown={
            (step === 'plan' && guess !== undefined) ||
            (step === 'fixtures' && twins !== undefined) ||
            undefined
          }
          data-picking={picking || undefined}
        >
          <div className={classes.plate} style={plateAt}>
            <svg
              className={classes.marks}
              width={box.width}
              height={box.height}
              data-testid="marks"
              data-step={step}
              data-many={(step === 'fixtures' && scene.fixtures.length > FEW) || undefined}
              {...({ mattes: matteGestures, plan: planGestures, fixtures: fixtureGestures }[step as string] ??
                ground)}
            >
              {step === 'frame' && <FrameMarks box={box} />}
              {step === 'night' && nightPart === 'surround' && <SurroundMarks box={box} />}
              {step === 'mattes' && <MatteMarks box={box} trail={trail} />}
              {step === 'plan' && <PlanMarks box={box} trail={trail} />}
              {step === 'fixtures' && (
                <>
                  {scene.fixtures.map((f) => (
                    <FixtureMark key={f.id} fixture={f} box={box} />
                  ))}
                  {fixture && <TwinMarks box={box} size={fixture.size} />}
                  <path ref={trail} className={classes.trail} />
                </>
              )}
            </svg>
            {step === 'fixtures' && fixture && !moving && (
              <FixtureTag fixture={fixture} box={box} turned={frame.angle} />
            )}
          </div>
        </div>
      </div>
      {proof === 'wipe' && !day && <WipeHandle />}
      {probing && pointer && <Probe at={pointer} night={[coarse, night]} day={[dayPart, dayCanvas]} />}
      {step === 'plan' && pointer && !probing && <PlanProbe at={pointer} />}
      {popUp && step === 'plan' && <PopUpView day={dayCanvas} />}
      {look.zoom !== 'fit' && <OverviewMap part={visiblePart(pane, place)} />}
      {!day && (
        <div className={classes.lighting}>
          <span className={classes.says} role="status">
            Lighting the scene
          </span>
        </div>
      )}
      {day && <span className={classes.says}>Day</span>}
      {!day && buildUp !== undefined && (
        <span className={classes.says} role="status">
          {buildUpSays(scene, Math.min(buildUp, scene.circuits.length))}
        </span>
      )}
    </main>
  );
}
