import { fitFrame } from '../frame/frame';
import { hourValues } from '../night/hour';
import { clampTo, RANGES } from '../fields/ranges';
import type { Desk, GroundPlan, Matte, Moon, Night, Scene, SceneFrame } from './schema';
import type { Command } from './command';
import { keepRiding } from './keep-riding';

/** Names the scene. */
export const renameScene = (title: string): Command => ({
  label: 'Name',
  apply: (scene) => {
    scene.title = title;
  },
});

/** Makes the scene again what it was at a moment with a name. */
export const returnToMoment = (name: string, moment: Scene): Command => ({
  label: `Back to ${name}`,
  apply: (scene) => {
    Object.assign(scene, moment, { title: scene.title, plate: scene.plate });
  },
});

/**
 * Moves the hour. The night's values start from the new hour's and keep what the person had added to the old one's:
 * exposure in stops, kelvin in mireds, saturation as it is.
 */
export const setHour = (hour: number): Command => ({
  label: 'Hour',
  apply: ({ night }) => {
    const before = hourValues(night.hour);
    const after = hourValues(hour);
    const mired = 1 / night.kelvin - 1 / before.kelvin + 1 / after.kelvin;
    night.hour = hour;
    night.exposure = clampTo(after.exposure + night.exposure - before.exposure, RANGES.exposure);
    night.kelvin = clampTo(1 / Math.max(mired, 1e-6), RANGES.kelvin);
    night.rods = clampTo(after.rods + night.rods - before.rods, RANGES.rods);
    night.saturation = clampTo(after.saturation + night.saturation - before.saturation, RANGES.saturation);
  },
});

/** Sets values of the night. */
export const setNight = (label: string, values: Partial<Night>): Command => ({
  label,
  apply: (scene) => {
    Object.assign(scene.night, values);
  },
});

/** Parts of the night that hold values of their own. */
export type NightPart = 'shape' | 'byTone' | 'refit' | 'surround';

/** Sets values of one part of the night. */
export const setNightPart = <Part extends NightPart>(
  label: string,
  part: Part,
  values: Partial<Night[Part]>,
): Command => ({
  label,
  apply: ({ night }) => {
    Object.assign(night[part], values);
  },
});

/** Sets how strongly the look-up table counts. */
export const setLutStrength = (strength: number): Command => ({
  label: 'Look-up table: strength',
  apply: ({ night }) => {
    if (night.lut) night.lut.strength = strength;
  },
});

/** Sets the frame, clamped to the plate. */
export const setFrame = (label: string, values: Partial<SceneFrame>): Command => ({
  label,
  apply: (scene) => {
    const { plate, frame } = scene;
    const next = { ...frame, ...values };
    const { min } = RANGES.frameSide;
    const clamped = {
      ...next,
      width: clampTo(next.width, RANGES.frameSide),
      height: clampTo(next.height, RANGES.frameSide),
      angle: clampTo(next.angle, RANGES.angle),
    };
    const fitted = fitFrame(clamped, plate.width / plate.height);
    if (fitted.width < min || fitted.height < min) return;
    scene.frame = { ...fitted, ratio: next.ratio };
  },
});

/** Sets values of the ground plan. */
export const setPlan = (label: string, values: Partial<GroundPlan>): Command => ({
  label,
  apply: (scene) => keepRiding(scene, () => Object.assign(scene.plan, values)),
});

/** Sets values of the ground itself. */
export const setGround = (label: string, values: Partial<GroundPlan['ground']>): Command => ({
  label,
  apply: ({ plan }) => {
    Object.assign(plan.ground, values);
  },
});

/** Says by a stroke of the brush what a place is. */
export const sayPlace = (stroke: GroundPlan['strokes'][number]): Command => ({
  label: `Say: ${stroke.as}`,
  apply: ({ plan }) => {
    plan.strokes.push(stroke);
  },
});

/** Takes back the last of such strokes. */
export const unsayPlace = (): Command => ({
  label: 'Take back a stroke',
  apply: ({ plan }) => {
    plan.strokes.pop();
  },
});

/** Kinds of surfaces that a ground plan holds beside the ground. */
export type SurfaceKind = 'walls' | 'standees' | 'decks' | 'glosses';

/** Adds a surface to the ground plan. */
export const addSurface = <Kind extends SurfaceKind>(
  label: string,
  kind: Kind,
  surface: GroundPlan[Kind][number],
): Command => ({
  label,
  apply: (scene) =>
    keepRiding(scene, () => {
      (scene.plan[kind] as GroundPlan[Kind][number][]).push(surface);
    }),
});

/** Adds a standee together with the matte that it is. */
export const standUp = (matte: Matte, standee: GroundPlan['standees'][number]): Command => ({
  label: `Stand up ${standee.name}`,
  apply: ({ mattes, plan }) => {
    mattes.push(matte);
    plan.standees.push(standee);
  },
});

/** Sets values of a surface of the ground plan. */
export const setSurface = <Kind extends SurfaceKind>(
  label: string,
  kind: Kind,
  id: string,
  values: Partial<GroundPlan[Kind][number]>,
): Command => ({
  label,
  apply: (scene) =>
    keepRiding(scene, () => {
      const surface = scene.plan[kind].find((other) => other.id === id);
      if (surface) Object.assign(surface, values);
    }),
});

/** Says of walls, by their ids, by how many stops the day's shade darkens them. */
export const shadeWalls = (stops: ReadonlyMap<string, number>): Command => ({
  label: 'Walls in the shade',
  apply: ({ plan }) => {
    for (const wall of plan.walls) if (stops.has(wall.id)) wall.dayShade = stops.get(wall.id);
  },
});

/** Takes a surface out of the ground plan. */
export const removeSurface = (label: string, kind: SurfaceKind, id: string): Command => ({
  label,
  apply: (scene) =>
    keepRiding(scene, () => {
      const index = scene.plan[kind].findIndex((surface) => surface.id === id);
      if (index >= 0) scene.plan[kind].splice(index, 1);
    }),
});

/** Sets where the moon stands. */
export const setMoon = (label: string, values: Partial<Moon>): Command => ({
  label,
  apply: (scene) => {
    Object.assign(scene.moon, values);
  },
});

/** Sets faders of the desk that belong to no circuit. */
export const setDesk = (label: string, values: Partial<Desk>): Command => ({
  label,
  apply: (scene) => {
    Object.assign(scene.desk, values);
  },
});
