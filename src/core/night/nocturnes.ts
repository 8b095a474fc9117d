import type { Night } from './night-schema';
import { startingNight } from './starting-night';

/** A ready-made night. */
export interface Nocturne {
  id: string;
  name: string;
  night: Night;
}

type Values = Partial<Omit<Night, 'hour' | 'shape'>> & { hour: number; shape?: Partial<Night['shape']> };

/** Values over those of the hour. */
function nocturne(id: string, name: string, { hour, shape, ...values }: Values): Nocturne {
  const start = startingNight(hour);
  return { id, name, night: { ...start, ...values, shape: { ...start.shape, ...shape } } };
}

function strip(...stops: [at: number, color: [number, number, number]][]): Night['byTone']['stops'] {
  return stops.map(([at, color]) => ({ at, color }));
}

/** Strips for colour by tone. */
const NAVY = strip(
  [0, [0.01, 0.014, 0.04]],
  [0.3, [0.06, 0.11, 0.27]],
  [0.62, [0.3, 0.42, 0.66]],
  [1, [0.8, 0.88, 1]],
);
const STEEL = strip(
  [0, [0.008, 0.012, 0.025]],
  [0.3, [0.1, 0.14, 0.22]],
  [0.65, [0.42, 0.5, 0.62]],
  [1, [0.9, 0.94, 1]],
);
const EMBER = strip(
  [0, [0.03, 0.02, 0.05]],
  [0.35, [0.22, 0.13, 0.2]],
  [0.7, [0.78, 0.5, 0.36]],
  [1, [1, 0.86, 0.68]],
);

/** A curve of an S: darks sink, the brightest stay. */
const DEEPER = {
  points: [
    { x: 0, y: 0 },
    { x: 0.12, y: 0.08 },
    { x: 0.45, y: 0.46 },
    { x: 1, y: 1 },
  ],
};

/** Nights of our own to start from. Whoever takes one goes on from its values. */
export const NOCTURNES: readonly Nocturne[] = [
  nocturne('last-sun', 'Last sun', {
    hour: 0.06,
    exposure: -1.5,
    kelvin: 4700,
    saturation: 0.85,
    rods: 0,
    hold: 0.35,
    evenOut: 0.35,
    haze: 0.2,
    hazeKelvin: 3600,
    byTone: { strength: 0.35, stops: EMBER },
  }),
  nocturne('dusk', 'Dusk', {
    hour: 0.27,
    exposure: -2.1,
    kelvin: 11500,
    tint: 0.1,
    saturation: 0.66,
    rods: 0.15,
    hold: 0.4,
    evenOut: 0.6,
    haze: 0.16,
    hazeKelvin: 9000,
    byTone: { strength: 0.25, stops: NAVY },
  }),
  nocturne('blue-hour', 'Blue hour', {
    hour: 0.44,
    exposure: -2.4,
    kelvin: 16000,
    saturation: 0.6,
    rods: 0.25,
    hold: 0.35,
    evenOut: 0.65,
    haze: 0.16,
    hazeKelvin: 16000,
    byTone: { strength: 0.4, stops: NAVY },
    shape: DEEPER,
  }),
  nocturne('after-rain', 'After rain', {
    hour: 0.585,
    exposure: -3.8,
    kelvin: 13000,
    tint: 0,
    saturation: 0.42,
    rods: 0.5,
    hold: 0.6,
    evenOut: 0.65,
    haze: 0.3,
    hazeKelvin: 11000,
    byTone: { strength: 0.3, stops: STEEL },
    shape: DEEPER,
  }),
  nocturne('foggy-town', 'Foggy town', {
    hour: 0.585,
    exposure: -4.4,
    kelvin: 11000,
    saturation: 0.3,
    rods: 0.6,
    hold: 0.75,
    evenOut: 0.6,
    haze: 0.5,
    hazeKelvin: 6300,
    hazeGlow: 0.7,
    tint: 0.05,
  }),
  nocturne('moonlight', 'Moonlight', {
    hour: 0.585,
    exposure: -3.8,
    kelvin: 10500,
    saturation: 0.22,
    rods: 1,
    hold: 0.5,
    evenOut: 0.4,
    haze: 0.08,
    hazeKelvin: 9000,
    byTone: { strength: 0.5, stops: STEEL },
    shape: DEEPER,
  }),
  nocturne('deep-night', 'Deep night', {
    hour: 1,
    exposure: -5.3,
    kelvin: 13000,
    saturation: 0.34,
    rods: 0.9,
    hold: 0.7,
    evenOut: 0.6,
    haze: 0.1,
    hazeKelvin: 12000,
    byTone: { strength: 0.3, stops: NAVY },
  }),
  nocturne('lamps-only', 'Lamps only', {
    hour: 0.92,
    exposure: -6.6,
    kelvin: 11000,
    saturation: 0.3,
    rods: 1,
    hold: 0.7,
    evenOut: 0.6,
    haze: 0.1,
    hazeKelvin: 6000,
  }),
];

/** The nocturne of an id. */
export function findNocturne(id: string): Nocturne | undefined {
  return NOCTURNES.find((nocturne) => nocturne.id === id);
}
