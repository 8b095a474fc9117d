import { kelvinGel } from '@/core/fixture/kelvin-gel';
import type { PaintStroke } from '@/core/matte/pass';
import { MOST_PAINTED, MOST_STROKES } from '@/core/matte/matte-schema';
import type { Command } from '@/core/scene/command';
import type { Circuit, Scene, Touch } from '@/core/scene/schema';
import { addTouch, layStroke } from '@/core/scene/touch-commands';
import { MOST_TOUCHES, TOUCH_AMOUNTS, type TouchAct } from '@/core/touch/touch-schema';
import { newCircuit } from './fixture-actions';
import { freeName } from './free-name';

/** What touches are called, before their numbers. */
const STEMS: Record<TouchAct, string> = { surface: 'Touch', air: 'Glow', lift: 'Lift' };

/** A touch to be laid on, and the circuit that it needs. */
export interface TouchToLay {
  touch: Touch;
  /** Its circuit; it may not be in the scene yet. */
  circuit?: Circuit;
  /** Whether the scene holds it already. */
  isThere: boolean;
}

/** A touch that begins: on the circuit that was worked on last, in the gel of what burns there. */
export function newTouch(scene: Scene, does: TouchAct, last?: string): TouchToLay {
  const found = scene.circuits.find(({ id }) => id === last) ?? scene.circuits.at(-1);
  const circuit = does === 'lift' ? undefined : (found ?? newCircuit(scene));
  const gel = scene.fixtures.find((fixture) => fixture.circuit === circuit?.id)?.gel ?? kelvinGel(2700);
  const touch: Touch = {
    id: crypto.randomUUID(),
    name: freeName(STEMS[does], scene.touches),
    ...{ does, circuit: circuit?.id, gel, amount: TOUCH_AMOUNTS[does].start, strokes: [] },
  };
  if (!circuit) delete touch.circuit;
  return { touch, circuit, isThere: false };
}

/** The touch that the next stroke is laid on: the chosen one, or one that begins. */
export function touchToLay(
  scene: Scene,
  chosen: string | undefined,
  next: TouchAct,
  last?: string,
): TouchToLay {
  const touch = scene.touches.find(({ id }) => id === chosen);
  return touch ? { touch, isThere: true } : newTouch(scene, next, last);
}

/** Why no more can be laid on; undefined while it can. */
export function touchFull(scene: Scene, { touch, isThere }: TouchToLay, places: number): string | undefined {
  if (!isThere && scene.touches.length >= MOST_TOUCHES)
    return `A scene holds ${MOST_TOUCHES} touches. Choose one of them, or remove some.`;
  const held = touch.strokes.reduce((sum, { path }) => sum + path.length / 3, places);
  if (touch.strokes.length >= MOST_STROKES || held > MOST_PAINTED)
    return 'This touch holds as many strokes as it can. Begin another one and go on there.';
  return undefined;
}

/** Lays a stroke on, and begins its touch where it is new. */
export function laying({ touch, circuit, isThere }: TouchToLay, stroke: PaintStroke): Command {
  return isThere ? layStroke(touch.id, stroke) : addTouch({ ...touch, strokes: [stroke] }, circuit);
}

/** A scene as it is with a touch that may still have to begin. */
export function withTouch(scene: Scene, { touch, circuit, isThere }: TouchToLay): Scene {
  if (isThere) return scene;
  const circuits =
    circuit && !scene.circuits.includes(circuit) ? [...scene.circuits, circuit] : scene.circuits;
  return { ...scene, circuits, touches: [...scene.touches, touch] };
}
