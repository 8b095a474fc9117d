import { array, mixed, number, object } from 'yup';
import { id } from '../fields/fields';
import { RANGES } from '../fields/ranges';
import { framedSize } from '../frame/frame';
import { seeded } from '../fixture/seeded';
import { burns } from '../picture/layers';
import { runCommand } from '../scene/command';
import { setDeskBetween } from '../scene/cue-commands';
import { cueOf } from '../scene/cues';
import type { Circuit, Cue, Fixture, Scene } from '../scene/schema';
import { outputSize } from './output-formats';

/** How the lights of a circuit come on. */
export const WAYS_ON = {
  atOnce: { label: 'At once', says: 'a switch' },
  fades: { label: 'Fades up', says: 'a dimmer' },
  flickers: { label: 'Flickers on', says: 'a gas tube that strikes a few times' },
  warms: { label: 'Warms up', says: 'a street lamp, dim and red at first' },
  oneByOne: { label: 'One by one', says: 'windows, by chance' },
} as const;
export type WayOn = keyof typeof WAYS_ON;

/** What a switching-on can be written as. */
export const SWITCHING_FORMS = {
  webp: { label: 'Animated WebP', ending: 'webp', mime: 'image/webp' },
  pngs: { label: 'Numbered PNGs', ending: 'zip', mime: 'application/zip' },
} as const;
export type SwitchingForm = keyof typeof SWITCHING_FORMS;

/** Ranges of a switching-on's numbers. */
export const SWITCHING_RANGES = {
  seconds: { min: 0.5, max: 20, step: 0.5, unit: 's', decimals: 1 },
  hold: { min: 0, max: 10, step: 0.5, unit: 's', decimals: 1 },
  fps: { min: 5, max: 60, step: 1, unit: '', decimals: 0 },
  long: { min: 64, max: 2560, step: 1, unit: 'px', decimals: 0 },
  quality: { min: 40, max: 100, step: 1, unit: '', decimals: 0 },
  seed: RANGES.seed,
} as const;

/** Pixels of all its pictures together: they are held at once, three bytes each. */
const MOST_SWITCHING_PIXELS = 150e6;

const within = ({ min, max }: { min: number; max: number }) => number().strict().required().min(min).max(max);

export const switchingSchema = object({
  form: mixed<SwitchingForm>()
    .oneOf(Object.keys(SWITCHING_FORMS) as SwitchingForm[])
    .required(),
  /** Until everything burns. */
  seconds: within(SWITCHING_RANGES.seconds),
  /** How long the last picture stands. */
  hold: within(SWITCHING_RANGES.hold),
  fps: within(SWITCHING_RANGES.fps).integer(),
  /** Longer side, pixels. */
  long: within(SWITCHING_RANGES.long).integer(),
  quality: within(SWITCHING_RANGES.quality).integer(),
  seed: within(SWITCHING_RANGES.seed).integer(),
  /** Circuits by their ids; one that is not named comes on as its lamps do. */
  ways: array(
    object({
      circuit: id(),
      way: mixed<WayOn>()
        .oneOf(Object.keys(WAYS_ON) as WayOn[])
        .required(),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .max(100),
  /** A fade instead: from a cue to another one, or to the desk as it is. */
  fade: object({ from: id(), to: id().optional() }).noUnknown().optional().default(undefined),
})
  .noUnknown()
  .required();

/** The lights of a scene coming on, circuit by circuit, from dark to as it is. */
export interface Switching {
  form: SwitchingForm;
  seconds: number;
  hold: number;
  fps: number;
  long: number;
  quality: number;
  seed: number;
  ways: { circuit: string; way: WayOn }[];
  fade?: { from: string; to?: string };
}

export const FIRST_SWITCHING: Switching = {
  ...{ form: 'webp', seconds: 4, hold: 2, fps: 15, long: 960, quality: 85, seed: 1, ways: [] },
};

/** Gas that glows in a tube strikes; discharge lamps, below this colour temperature, warm up. */
const SODIUM_KELVIN = 2200;

/** Kinds that come on in a way of their own, whatever their gel. */
const BY_KIND: Partial<Record<Fixture['kind'], WayOn>> = {
  ...{ pane: 'oneByOne', tube: 'flickers', bolt: 'atOnce', fire: 'fades' },
};

/** How a circuit's lights come on by themselves: as most of its fixtures do. */
export function ownWay(fixtures: readonly Fixture[]): WayOn {
  const counts = new Map<WayOn, number>();
  for (const { kind, gel } of fixtures) {
    const lamp = gel.from === 'kelvin' && gel.kelvin < SODIUM_KELVIN ? 'warms' : 'fades';
    const way = BY_KIND[kind] ?? lamp;
    counts.set(way, (counts.get(way) ?? 0) + 1);
  }
  const most = Math.max(0, ...counts.values());
  return [...counts].find(([, count]) => count === most)?.[0] ?? 'fades';
}

/** The way that is set for a circuit, or its own. */
export const wayOf = ({ ways }: Switching, circuit: string, fixtures: readonly Fixture[]): WayOn =>
  ways.find((set) => set.circuit === circuit)?.way ??
  ownWay(fixtures.filter((own) => own.circuit === circuit));

/** A circuit, or a part of one, and when it comes on: shares of the whole time. */
interface Cueing {
  circuit: Circuit;
  way: WayOn;
  begins: number;
  lasts: number;
  seed: number;
}

/** A scene made ready: circuits whose lights come on one by one are parted. */
export interface ReadySwitching {
  scene: Scene;
  /** In the order of the scene's circuits. Those that do not burn never begin. */
  cueings: Cueing[];
  /** The cues between which the desk fades instead. */
  fade?: [from: Cue, to: Cue];
  /** How many pictures until everything burns, the first one dark and the last one whole. */
  frames: number;
}

/** Into how many parts a circuit goes at most whose lights come on one by one. */
const MOST_PARTS = 6;

/** How long a circuit takes, as a share of the whole; circuits begin so that the last one ends with it. */
const LASTS = 0.35;

/** A circuit's fixtures in parts, by chance: the first part keeps the circuit's own name. */
function parted(circuit: Circuit, fixtures: readonly Fixture[], seed: number) {
  const chance = seeded(seed);
  const own = fixtures.filter((fixture) => fixture.circuit === circuit.id);
  const order = own.map((fixture) => [chance(), fixture.id] as const).sort(([a], [b]) => a - b);
  const count = Math.max(1, Math.min(MOST_PARTS, own.length));
  const parts = Array.from({ length: count }, (_, k) => (k === 0 ? circuit.id : `${circuit.id}~${k}`));
  const partOf = new Map(order.map(([, fixture], i) => [fixture, parts[i % count]]));
  return { parts, partOf };
}

/** The cues of a fade; none where the scene has not the one that it begins with. */
function fadeOf(scene: Scene, { fade }: Switching): ReadySwitching['fade'] {
  const from = scene.cues.find(({ id }) => id === fade?.from);
  const to = scene.cues.find(({ id }) => id === fade?.to) ?? cueOf(scene, 'now', 'Now');
  return from && [from, to];
}

/** How many pictures it takes until everything burns. */
const framesOf = ({ seconds, fps }: Switching): number => Math.max(2, Math.round(seconds * fps) + 1);

/** What a switching-on of a scene comes to: its pictures, their size, and whether that is more than can be held. */
export function switchingExtent({ plate, frame }: Pick<Scene, 'plate' | 'frame'>, switching: Switching) {
  const frames = framesOf(switching);
  const size = outputSize(framedSize(plate, frame), switching.long);
  return { frames, size, isTooLarge: size.width * size.height * frames > MOST_SWITCHING_PIXELS };
}

/** Readies a scene to be switched on, or faded. What does not burn stays dark. */
export function readySwitching(scene: Scene, switching: Switching): ReadySwitching {
  const frames = framesOf(switching);
  const fade = fadeOf(scene, switching);
  if (fade) return { scene, cueings: [], fade, frames };
  const burning = scene.circuits.filter((circuit) => burns(circuit, scene));
  const gap = burning.length > 1 ? (1 - LASTS) / (burning.length - 1) : 0;
  const belongs = new Map<string, string>();
  const cueings = scene.circuits.flatMap((circuit): Cueing[] => {
    const k = burning.indexOf(circuit);
    if (k < 0) return [{ circuit, way: 'atOnce', begins: Infinity, lasts: 0, seed: 0 }];
    const way = wayOf(switching, circuit.id, scene.fixtures);
    const seed = switching.seed + 101 * k;
    const plain = { way, begins: k * gap, lasts: burning.length > 1 ? LASTS : 1, seed };
    if (way !== 'oneByOne') return [{ ...plain, circuit }];
    const { parts, partOf } = parted(circuit, scene.fixtures, seed);
    partOf.forEach((part, fixture) => belongs.set(fixture, part));
    const chance = seeded(seed + 1);
    return parts.map((id, i) => ({
      ...{ circuit: { ...circuit, id }, way: 'atOnce', seed },
      begins: plain.begins + (plain.lasts * (i + chance())) / parts.length,
      lasts: 0,
    }));
  });
  const fixtures = scene.fixtures.map((own) => ({ ...own, circuit: belongs.get(own.id) ?? own.circuit }));
  return { scene: { ...scene, fixtures }, cueings, frames };
}

/** How often a tube strikes before it burns, and what is left of its light between: shares. */
const STRIKES = { count: 5, dark: 0.02, weak: 0.4 } as const;

/** From 0 to 1, slow at both ends. */
const smooth = (t: number) => t * t * (3 - 2 * t);

/** Share of a circuit's light at a share of its time, below 1. */
const SHARES: Record<WayOn, (t: number, seed: number) => number> = {
  atOnce: () => 0,
  fades: smooth,
  flickers(t, seed) {
    const beat = Math.floor(t * 2 * STRIKES.count);
    const chance = seeded(seed + 7 * beat)();
    if (beat % 2 === 0) return chance < 0.2 ? STRIKES.weak * chance : STRIKES.dark * chance;
    return STRIKES.weak + (1 - STRIKES.weak) * chance * t;
  },
  warms: (t) => 0.04 * Math.min(1, 8 * t) + 0.96 * t ** 3,
  oneByOne: () => 0,
};

/** How much warmer a lamp is that has just begun to warm up, mired. */
const COLD_WARMTH = 60;

/** A circuit at a share of the whole time, 0 to 1. */
function circuitAt({ circuit, way, begins, lasts, seed }: Cueing, time: number): Circuit {
  const lit = { ...circuit, muted: false, solo: false };
  if (time >= Math.min(1, begins + lasts) && begins <= 1) return lit;
  const t = (time - begins) / lasts;
  const share = t > 0 ? SHARES[way](t, seed) : 0;
  if (share <= 2 ** RANGES.level.min) return { ...lit, muted: true };
  const level = Math.max(RANGES.level.min, circuit.level + Math.log2(share));
  const warmth = way === 'warms' ? circuit.warmth + COLD_WARMTH * (1 - t) : circuit.warmth;
  return { ...lit, level, warmth: Math.min(RANGES.warmth.max, warmth) };
}

/** The scene as picture `frame` of a switching-on shows it. */
export function switchedAt({ scene, cueings, fade, frames }: ReadySwitching, frame: number): Scene {
  const time = Math.min(1, frame / (frames - 1));
  if (fade) return runCommand(scene, setDeskBetween('', ...fade, smooth(time))).scene;
  return { ...scene, circuits: cueings.map((cueing) => circuitAt(cueing, time)) };
}
