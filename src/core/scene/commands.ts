import { fittingValues } from '../fixture/make-fixture';
import { KINDS } from '../fixture/kinds';
import { ownNumbers } from '../fixture/own-settings';
import { fitFrame } from '../frame/frame';
import { hourValues } from '../night/hour';
import type { EdgeStroke, PaintStroke, Pass } from '../matte/pass';
import { clampTo, RANGES } from '../fields/ranges';
import type {
  Circuit,
  Desk,
  Fixture,
  FixtureValues,
  GroundPlan,
  Matte,
  Moon,
  Night,
  Place,
  Scene,
  SceneFrame,
} from './schema';
import type { Command } from './command';

const hold = (value: number, { min, max }: { min: number; max: number }) =>
  Math.min(max, Math.max(min, value));

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

/** Sets the frame, held inside the plate. */
export const setFrame = (label: string, values: Partial<SceneFrame>): Command => ({
  label,
  apply: (scene) => {
    const { plate, frame } = scene;
    const next = { ...frame, ...values };
    const { min } = RANGES.frameSide;
    const held = {
      ...next,
      width: clampTo(next.width, RANGES.frameSide),
      height: clampTo(next.height, RANGES.frameSide),
      angle: clampTo(next.angle, RANGES.angle),
    };
    const fitted = fitFrame(held, plate.width / plate.height);
    if (fitted.width < min || fitted.height < min) return;
    scene.frame = { ...fitted, ratio: next.ratio };
  },
});

/** Sets values of the ground plan. */
export const setPlan = (label: string, values: Partial<GroundPlan>): Command => ({
  label,
  apply: (scene) => {
    Object.assign(scene.plan, values);
  },
});

/** Sets values of the ground itself. */
export const setGround = (label: string, values: Partial<GroundPlan['ground']>): Command => ({
  label,
  apply: ({ plan }) => {
    Object.assign(plan.ground, values);
  },
});

/** Kinds of surfaces that a ground plan holds beside the ground. */
export type SurfaceKind = 'walls' | 'standees' | 'decks';

/** Adds a surface to the ground plan. */
export const addSurface = <Kind extends SurfaceKind>(
  label: string,
  kind: Kind,
  surface: GroundPlan[Kind][number],
): Command => ({
  label,
  apply: ({ plan }) => {
    (plan[kind] as GroundPlan[Kind][number][]).push(surface);
  },
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
  apply: ({ plan }) => {
    const surface = plan[kind].find((other) => other.id === id);
    if (surface) Object.assign(surface, values);
  },
});

/** Takes a surface out of the ground plan. */
export const removeSurface = (label: string, kind: SurfaceKind, id: string): Command => ({
  label,
  apply: ({ plan }) => {
    const index = plan[kind].findIndex((surface) => surface.id === id);
    if (index >= 0) plan[kind].splice(index, 1);
  },
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

/** Lights a fixture; its circuit is added when the scene does not have it yet. */
export const addFixture = (fixture: Fixture, circuit: Circuit): Command => ({
  label: `Light ${fixture.name}`,
  apply: (scene) => {
    if (!scene.circuits.some(({ id }) => id === circuit.id)) scene.circuits.push(circuit);
    scene.fixtures.push(fixture);
  },
});

/** Sets values of one fixture. */
export const setFixture = (label: string, id: string, values: Omit<FixtureValues, 'id'>): Command => ({
  label,
  apply: (scene) => {
    const fixture = scene.fixtures.find((f) => f.id === id);
    if (!fixture) return;
    Object.assign(fixture, fittingValues(fixture.kind, values));
    if (fixture.bulb === undefined || 'bulb' in values) return;
    const shared = Object.fromEntries(Object.entries(values).filter(([key]) => isOfBulb(fixture, key)));
    for (const other of scene.fixtures)
      if (other.bulb === fixture.bulb) Object.assign(other, fittingValues(other.kind, shared));
  },
});

/** What of all kinds fixtures of one bulb share. */
const BULB_KEYS: readonly string[] = ['gel', 'lumens', 'heart', 'halo', 'shown', 'spill'];

/** Whether fixtures of one bulb share a value: what their kind alone has, they do. */
export const isOfBulb = ({ kind }: Pick<Fixture, 'kind'>, key: string): boolean =>
  BULB_KEYS.includes(key) || ownNumbers(KINDS[kind].own).some(([name, { apart }]) => name === key && !apart);

/** Sets values of one circuit. */
export const setCircuit = (label: string, id: string, values: Partial<Omit<Circuit, 'id'>>): Command => ({
  label,
  apply: (scene) => {
    const circuit = scene.circuits.find((c) => c.id === id);
    if (circuit) Object.assign(circuit, values);
  },
});

/** Puts a fixture on another circuit, which is added when it is new. */
export const moveToCircuit = (fixtureId: string, circuit: Circuit): Command => ({
  label: `Move to ${circuit.name}`,
  apply: (scene) => {
    const fixture = scene.fixtures.find((f) => f.id === fixtureId);
    if (!fixture) return;
    if (!scene.circuits.some(({ id }) => id === circuit.id)) scene.circuits.push(circuit);
    fixture.circuit = circuit.id;
    dropEmptyCircuits(scene);
  },
});

/** Takes away circuits that nothing is on. */
export function dropEmptyCircuits(scene: Scene): void {
  scene.circuits = scene.circuits.filter(({ id }) => scene.fixtures.some((f) => f.circuit === id));
}

/** Adds a matte. */
export const addMatte = (matte: Matte): Command => ({
  label: `Matte: ${matte.name}`,
  apply: (scene) => {
    scene.mattes.push(matte);
  },
});

/** Sets values of one matte. */
export const setMatte = (label: string, id: string, values: Partial<Omit<Matte, 'id'>>): Command => ({
  label,
  apply: (scene) => {
    const matte = scene.mattes.find((m) => m.id === id);
    if (matte) Object.assign(matte, values);
  },
});

/** Sets values of one pass of a matte. */
export const setPass = (label: string, matteId: string, id: string, values: Partial<Pass>): Command => ({
  label,
  apply: (scene) => {
    const pass = scene.mattes.find((m) => m.id === matteId)?.passes.find((p) => p.id === id);
    if (pass) Object.assign(pass, values);
  },
});

/** Adds a stroke to a pass that is drawn; a stroke of the edge brush comes with the picture of all that was found. */
export const addStroke = (
  label: string,
  matteId: string,
  id: string,
  stroke: PaintStroke | EdgeStroke,
  asset?: string,
): Command => ({
  label,
  apply: (scene) => {
    const pass = scene.mattes.find((m) => m.id === matteId)?.passes.find((p) => p.id === id);
    if (pass?.kind === 'paint') pass.strokes.push(stroke as PaintStroke);
    if (pass?.kind !== 'edge') return;
    pass.strokes.push(stroke as EdgeStroke);
    pass.asset = asset;
  },
});

/** Takes a matte away, and what it was used for with it. */
export const removeMatte = (id: string): Command => ({
  label: 'Remove a matte',
  apply: (scene) => {
    scene.mattes = scene.mattes.filter((m) => m.id !== id);
    for (const matte of scene.mattes)
      matte.passes = matte.passes.filter((pass) => pass.kind !== 'matte' || pass.matte !== id);
    scene.places = scene.places.filter((place) => place.matte !== id);
    scene.plan.standees = scene.plan.standees.filter((standee) => standee.matte !== id);
    for (const wall of scene.plan.walls) if (wall.until === id) delete wall.until;
    if (scene.plan.sunShadow?.matte === id) delete scene.plan.sunShadow;
    if (scene.plan.ground.wet === id) delete scene.plan.ground.wet;
    for (const fixture of scene.fixtures) {
      if (fixture.behind === id) delete fixture.behind;
      if (fixture.only?.matte === id) delete fixture.only;
    }
  },
});

/** Sets the places of which the night's own light is lifted or lowered. */
export const setPlaces = (label: string, places: Place[]): Command => ({
  label,
  apply: (scene) => {
    scene.places = places;
  },
});
