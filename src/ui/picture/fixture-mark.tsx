'use client';

import { memo, useEffect, useRef, type KeyboardEvent } from 'react';
import { KINDS } from '@/core/fixture/kinds';
import type { PlatePoint } from '@/core/geometry/camera';
import { setFixture } from '@/core/scene/commands';
import { moveFixtures, removeFixtures } from '@/core/scene/many-commands';
import { RANGES } from '@/core/fields/ranges';
import type { Fixture, FixtureValues } from '@/core/scene/schema';
import { chosenIds } from '../steps/fixtures/fixtures-view';
import { useGesture } from '../controls/use-gesture';
import { useScene, useSession, useView } from '../editor/editor-context';
import type { Box } from './view-geometry';
import { FixturePath } from './fixture-path';
import { nudgeOf } from './nudge';
import { PlaceHandle } from './place-handle';
import { usePictureDrag } from './use-picture-drag';
import classes from './picture.module.css';

/** Least radius of a drop that can be grabbed, CSS pixels. */
const SMALLEST_DROP = 7;
const WHEEL_STEP = 1.06;
const NUDGE = 0.001;

interface FixtureMarkProps {
  fixture: Fixture;
  box: Box;
}

/** A fixture in the picture: the drop is the lamp, the stalk stands on its foot. */
export const FixtureMark = memo(function FixtureMark({ fixture, box }: FixtureMarkProps) {
  const chosen = useView((view) => view.chosen === fixture.id || view.also.includes(fixture.id));
  const { view } = useSession();
  const setView = useView((view) => view.set);
  const change = useScene((state) => state.change);
  const gesture = useGesture();
  const run = useScene((state) => state.run);
  const group = useRef<SVGGElement>(null);
  const start = useRef(fixture);
  /** A press brings the focus, but whether it chooses, or chooses too, is said when it ends. */
  const pressed = useRef(false);
  const { id, name, at, foot, size, path } = fixture;

  const choose = () => setView({ chosen: id, circuit: fixture.circuit });
  /** With Shift a fixture is chosen with those that are, or let go of. */
  const chooseToo = () => {
    const ids = chosenIds(view.getState());
    const [first, ...rest] = ids.includes(id) ? ids.filter((own) => own !== id) : [...ids, id];
    setView({ chosen: first, also: rest });
  };
  /** All that a gesture on this one moves. */
  const together = () => {
    const ids = chosenIds(view.getState());
    return ids.includes(id) ? ids : [id];
  };
  const move = (by: PlatePoint, feetStay = false) =>
    change(`fixtures ${together().join()} move`, moveFixtures(together(), by, feetStay));
  const set = (label: string, values: FixtureValues) =>
    change(`fixture ${id} ${label}`, setFixture(`${name}: ${label}`, id, values));
  const grab = () => {
    start.current = fixture;
    gesture.hold();
    if (!chosen) choose();
    setView({ moving: together().length === 1 ? fixture : undefined });
  };
  const letGo = () => {
    gesture.end();
    setView({ moving: undefined });
  };
  const moved = (point: PlatePoint, by: PlatePoint): PlatePoint => ({ u: point.u + by.u, v: point.v + by.v });

  const dropDrag = usePictureDrag({
    onStart: grab,
    // Feet go along sideways, so that stalks stay upright; with Alt they stay where they stand.
    onDrag: (by, _at, { altKey }) => move(by, altKey),
    onEnd: letGo,
    onClick: (_at, { shiftKey }) => (shiftKey ? chooseToo() : choose()),
  });
  const footDrag = usePictureDrag({
    onStart: grab,
    onDrag: (by) => set('foot', { foot: moved(start.current.foot, by) }),
    onEnd: letGo,
    onClick: choose,
  });

  const resize = (factor: number) => {
    if (path.length > 0) {
      // What is drawn grows around its middle.
      const grown = path.map(({ u, v }) => ({
        u: at.u + factor * (u - at.u),
        v: at.v + factor * (v - at.v),
      }));
      set('size', { path: grown });
      return;
    }
    const next = Math.min(RANGES.size.max, Math.max(RANGES.size.min, size * factor));
    set('size', { size: next });
  };
  const latestResize = useRef(resize);
  useEffect(() => {
    latestResize.current = resize;
  });
  useEffect(() => {
    const element = group.current!;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      event.stopPropagation();
      latestResize.current(event.deltaY < 0 ? WHEEL_STEP : 1 / WHEEL_STEP);
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, []);

  function onKeyDown(event: KeyboardEvent, part: 'drop' | 'foot'): void {
    if (event.ctrlKey || event.metaKey) return;
    const by = nudgeOf(event, NUDGE);
    if (by && part === 'drop') move(by);
    else if (by) set('foot', { foot: moved(foot, by) });
    else if (event.key === '[') resize(1 / WHEEL_STEP);
    else if (event.key === ']') resize(WHEEL_STEP);
    else if (event.key === 'Enter' || event.key === ' ') {
      if (event.shiftKey) chooseToo();
      else choose();
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      run(removeFixtures(together()));
      setView({ chosen: undefined });
    } else return;
    event.preventDefault();
  }

  const [x, y] = [at.u * box.width, at.v * box.height];
  const [footX, footY] = [foot.u * box.width, foot.v * box.height];
  const radius = path.length > 0 ? SMALLEST_DROP : Math.max(SMALLEST_DROP, size * box.width);
  const angle = Math.atan2(footY - y, footX - x);
  const [edgeX, edgeY] = [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
  return (
    <g ref={group} className={classes.mark} data-chosen={chosen || undefined}>
      <path
        className={classes.shade}
        d={`M${edgeX} ${edgeY}L${footX} ${footY}M${x - radius} ${y}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0`}
      />
      {path.length > 0 && <FixturePath fixture={fixture} box={box} chosen={chosen} />}
      {KINDS[fixture.kind].aimed && chosen && <Aim fixture={fixture} box={box} />}
      <line className={classes.stalk} x1={edgeX} y1={edgeY} x2={footX} y2={footY} />
      <g
        role="button"
        tabIndex={0}
        aria-label={`${name}, foot`}
        {...footDrag}
        onFocus={choose}
        onKeyDown={(event) => onKeyDown(event, 'foot')}
      >
        <circle className={classes.grip} cx={footX} cy={footY} r={12} />
        <ellipse
          className={classes.foot}
          cx={footX}
          cy={footY}
          rx={chosen ? 14 : 8}
          ry={chosen ? 4.5 : 2.8}
        />
      </g>
      <g
        role="button"
        tabIndex={0}
        aria-label={name}
        aria-pressed={chosen}
        {...dropDrag}
        onPointerDown={(event) => {
          pressed.current = true;
          dropDrag.onPointerDown(event);
        }}
        onPointerUp={(event) => {
          pressed.current = false;
          dropDrag.onPointerUp(event);
        }}
        onFocus={() => {
          if (!chosen && !pressed.current) choose();
        }}
        onKeyDown={(event) => onKeyDown(event, 'drop')}
      >
        <circle className={classes.grip} cx={x} cy={y} r={radius + 4} />
        <circle className={classes.drop} cx={x} cy={y} r={radius} />
      </g>
    </g>
  );
});

const AIM = { size: { grip: 11, knob: 4.5 }, nudge: { step: 0.004, coarse: 5 } };

/** Where vehicle lamps shine to, on the ground. */
function Aim({ fixture, box }: FixtureMarkProps) {
  const change = useScene((state) => state.change);
  const { id, name, foot, aim } = fixture;
  const [x, y] = [aim.u * box.width, aim.v * box.height];
  return (
    <>
      <line className={classes.aim} x1={foot.u * box.width} y1={foot.v * box.height} x2={x} y2={y} />
      <PlaceHandle
        label={`${name}, where it shines`}
        x={x}
        y={y}
        size={AIM.size}
        nudge={AIM.nudge}
        value={aim}
        onMove={(from, by) =>
          change(
            `fixture ${id} aim`,
            setFixture(`${name}: where it shines`, id, { aim: { u: from.u + by.u, v: from.v + by.v } }),
          )
        }
      />
    </>
  );
}
