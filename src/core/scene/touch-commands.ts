import type { PaintStroke } from '../matte/pass';
import { dropEmptyCircuits } from './fixture-commands';
import type { Command } from './command';
import type { Circuit, Scene, Touch } from './schema';

const touchIn = ({ touches }: Pick<Scene, 'touches'>, id: string): Touch | undefined =>
  touches.find((touch) => touch.id === id);

/** Begins a touch; its circuit is added when the scene does not have it yet. */
export const addTouch = (touch: Touch, circuit?: Circuit): Command => ({
  label: `Touch: ${touch.name}`,
  apply: (scene) => {
    if (circuit && !scene.circuits.some(({ id }) => id === circuit.id)) scene.circuits.push(circuit);
    scene.touches.push(touch);
  },
});

/** Sets values of a touch. */
export const setTouch = (label: string, id: string, values: Partial<Omit<Touch, 'id'>>): Command => ({
  label,
  apply: (scene) => {
    const touch = touchIn(scene, id);
    if (touch) Object.assign(touch, values);
  },
});

/** Puts a touch on another circuit, which is added when it is new. */
export const moveTouch = (id: string, circuit: Circuit): Command => ({
  label: `Move to ${circuit.name}`,
  apply: (scene) => {
    const touch = touchIn(scene, id);
    if (!touch) return;
    if (!scene.circuits.some((one) => one.id === circuit.id)) scene.circuits.push(circuit);
    touch.circuit = circuit.id;
    dropEmptyCircuits(scene);
  },
});

/** Lays a stroke on. */
export const layStroke = (id: string, stroke: PaintStroke): Command => ({
  label: stroke.erase ? 'Take light off' : 'Touch',
  apply: (scene) => {
    touchIn(scene, id)?.strokes.push(stroke);
  },
});

/** Sets how strong one stroke is. */
export const setStroke = (id: string, index: number, strength: number): Command => ({
  label: 'Strength of a stroke',
  apply: (scene) => {
    const stroke = touchIn(scene, id)?.strokes[index];
    if (stroke) stroke.strength = strength;
  },
});

/** Takes one stroke away. */
export const removeStroke = (id: string, index: number): Command => ({
  label: 'Remove a stroke',
  apply: (scene) => {
    touchIn(scene, id)?.strokes.splice(index, 1);
  },
});

/** Makes a touch of its own of one stroke, so that it has its own gel, amount and circuit. */
export const partStroke = (id: string, index: number, apart: Pick<Touch, 'id' | 'name'>): Command => ({
  label: 'A stroke as a touch of its own',
  apply: (scene) => {
    const touch = touchIn(scene, id);
    const [stroke] = touch?.strokes.splice(index, 1) ?? [];
    if (!touch || !stroke) return;
    const at = scene.touches.indexOf(touch);
    scene.touches.splice(at + 1, 0, { ...touch, ...apart, strokes: [stroke] });
  },
});

/** Takes a touch away, and its circuit if nothing else is on it. */
export const removeTouch = (id: string): Command => ({
  label: 'Remove a touch',
  apply: (scene) => {
    scene.touches = scene.touches.filter((touch) => touch.id !== id);
    dropEmptyCircuits(scene);
  },
});
