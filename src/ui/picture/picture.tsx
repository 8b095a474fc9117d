'use client';

import { notifications } from '@mantine/notifications';
import { useCallback, useMemo, useRef, type CSSProperties } from 'react';
import type { PlatePoint } from '@/core/plan/camera';
import { setFixture } from '@/core/scene/commands';
import type { Fixture } from '@/core/scene/schema';
import { useScene, useSession, useView } from '../editor/editor-context';
import { useLightGlobe } from '../editor/use-light-globe';
import { FixtureMark } from './fixture-mark';
import { FixtureTag } from './fixture-tag';
import { OverviewMap } from './overview-map';
import { pickColor } from './pick-color';
import { PlanMarks } from './plan-marks';
import { previewRegions } from './preview-regions';
import { useLookGestures } from './use-look-gestures';
import { usePictureDrag } from './use-picture-drag';
import { usePreview } from './use-preview';
import { useSize } from './use-size';
import { plateBox, visiblePart } from './view-geometry';
import { WipeHandle } from './wipe-handle';
import classes from './picture.module.css';

/** The picture, and the marks of the open step on it. */
export function Picture() {
  const session = useSession();
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const light = useLightGlobe();
  const { step, chosen, moving, day, picking, look, proof, wipe, set: setView } = useView((v) => v);
  const view = useRef<HTMLDivElement>(null);
  const night = useRef<HTMLCanvasElement>(null);
  const coarse = useRef<HTMLCanvasElement>(null);
  const dayCanvas = useRef<HTMLCanvasElement>(null);
  const dayPart = useRef<HTMLCanvasElement>(null);
  const { width, height } = useSize(view);
  const density = typeof window === 'undefined' ? 1 : window.devicePixelRatio;
  const panes = proof === 'beside' ? 2 : 1;
  const pane = useMemo(() => ({ width: width / panes, height }), [width, height, panes]);
  const box = useMemo(() => plateBox(pane, scene.plate, look, density), [pane, scene.plate, look, density]);
  const regions = useMemo(
    () => (pane.width > 0 ? previewRegions(pane, scene.plate, look, density) : undefined),
    [pane, scene.plate, look, density],
  );
  const onFault = useCallback((error: Error) => {
    notifications.show({ color: 'red', title: 'The picture could not be made', message: error.message });
  }, []);
  usePreview({ session, canvases: { night, coarse, day: dayCanvas, dayPart }, regions, onFault });
  const gestures = useLookGestures({
    view,
    pane,
    plate: scene.plate,
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

  const ground = usePictureDrag({
    onDrag: () => {},
    onEnd: () => {},
    onClick:
      step === 'fixtures' ? (at) => (picking && fixture ? pickGel(at, fixture) : light(at)) : undefined,
  });

  const placed = { left: box.left, top: box.top, width: box.width, height: box.height };
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
    >
      <div className={classes.pane} style={at(0)}>
        <div className={classes.plate} style={placed}>
          <canvas ref={night} className={classes.canvas} data-testid="night" />
          <canvas ref={coarse} className={classes.canvas} aria-hidden />
        </div>
      </div>
      <div
        className={classes.pane}
        style={{ ...at(day ? 0 : panes - 1), visibility: dayShown ? 'visible' : 'hidden', clipPath: cut }}
        data-testid="day-pane"
      >
        <div className={classes.plate} style={placed}>
          <canvas ref={dayCanvas} className={classes.canvas} data-testid="day" />
          <canvas ref={dayPart} className={classes.canvas} aria-hidden />
        </div>
      </div>
      <div className={classes.pane} style={at(0)}>
        <div
          className={classes.over}
          style={placed}
          data-quiet={day || undefined}
          data-picking={picking || undefined}
        >
          <svg
            className={classes.marks}
            width={box.width}
            height={box.height}
            data-testid="marks"
            data-step={step}
            {...ground}
          >
            {step === 'plan' && <PlanMarks box={box} />}
            {step === 'fixtures' &&
              scene.fixtures.map((f) => <FixtureMark key={f.id} fixture={f} box={box} />)}
          </svg>
          {step === 'fixtures' && fixture && !moving && <FixtureTag fixture={fixture} box={box} />}
        </div>
      </div>
      {proof === 'wipe' && !day && <WipeHandle />}
      {look.zoom !== 'fit' && <OverviewMap part={visiblePart(pane, box)} />}
      {day && <span className={classes.says}>Day</span>}
    </main>
  );
}
