'use client';

import { notifications } from '@mantine/notifications';
import { useCallback, useMemo, useRef } from 'react';
import type { PlatePoint } from '@/core/plan/camera';
import { addFixture, setFixture } from '@/core/scene/commands';
import { newCircuit, newGlobe } from '@/state/fixture-actions';
import { useScene, useSession, useView } from '../editor/editor-context';
import { fitBox } from './fit';
import { FixtureMark } from './fixture-mark';
import { FixtureTag } from './fixture-tag';
import { pickColor } from './pick-color';
import { PlanMarks } from './plan-marks';
import { usePictureDrag } from './use-picture-drag';
import { usePreview } from './use-preview';
import { useSize } from './use-size';
import classes from './picture.module.css';

/** The picture, and the marks of the open step on it. */
export function Picture() {
  const session = useSession();
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const { step, chosen, circuit: circuitId, moving, day, picking, set: setView } = useView((view) => view);
  const view = useRef<HTMLDivElement>(null);
  const nightCanvas = useRef<HTMLCanvasElement>(null);
  const coarseCanvas = useRef<HTMLCanvasElement>(null);
  const dayCanvas = useRef<HTMLCanvasElement>(null);
  const size = useSize(view);
  const box = useMemo(() => fitBox(size, scene.plate), [size, scene.plate]);
  const onFault = useCallback((error: Error) => {
    notifications.show({ color: 'red', title: 'The picture could not be made', message: error.message });
  }, []);
  usePreview({
    session,
    night: nightCanvas,
    coarse: coarseCanvas,
    day: dayCanvas,
    viewWidth: box.width * (typeof window === 'undefined' ? 1 : window.devicePixelRatio),
    onFault,
  });

  const fixture = scene.fixtures.find(({ id }) => id === chosen);

  function light(at: PlatePoint): void {
    if (picking && fixture) {
      const color = pickColor(dayCanvas.current!, at);
      const gel = { ...fixture.gel, from: 'picture' as const, color };
      run(setFixture(`${fixture.name}: gel off the picture`, fixture.id, { gel }));
      setView({ picking: false });
      return;
    }
    const circuit =
      scene.circuits.find(({ id }) => id === circuitId) ?? scene.circuits.at(-1) ?? newCircuit(scene);
    const lit = newGlobe(scene, at, circuit);
    run(addFixture(lit, circuit));
    setView({ chosen: lit.id, circuit: circuit.id });
  }

  const ground = usePictureDrag({
    onDrag: () => {},
    onEnd: () => {},
    onClick: step === 'fixtures' ? light : undefined,
  });

  const placed = { left: box.left, top: box.top, width: box.width, height: box.height };
  return (
    <main className={classes.view} ref={view} aria-label="Picture">
      <canvas ref={nightCanvas} className={classes.canvas} style={placed} data-testid="night" />
      <canvas ref={coarseCanvas} className={classes.canvas} style={placed} aria-hidden />
      <canvas
        ref={dayCanvas}
        className={classes.canvas}
        style={{ ...placed, visibility: day ? 'visible' : 'hidden' }}
        data-testid="day"
      />
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
          {step === 'fixtures' && scene.fixtures.map((f) => <FixtureMark key={f.id} fixture={f} box={box} />)}
        </svg>
        {step === 'fixtures' && fixture && !moving && <FixtureTag fixture={fixture} box={box} />}
      </div>
      <span className={classes.says}>{day ? 'Day' : ''}</span>
    </main>
  );
}
