import type { Night } from '../scene/schema';

/** A ready-made night. */
export interface Nocturne {
  id: string;
  name: string;
  night: Night;
}

/** Nights of our own to start from. Whoever takes one goes on from its values. */
export const NOCTURNES: readonly Nocturne[] = [
  {
    id: 'last-sun',
    name: 'Last sun',
    night: {
      hour: 0.06,
      exposure: -1.4,
      kelvin: 4300,
      tint: 0.04,
      saturation: 0.95,
      rods: 0,
      hold: 0.25,
      haze: 0.08,
    },
  },
  {
    id: 'dusk',
    name: 'Dusk',
    night: {
      hour: 0.27,
      exposure: -2.5,
      kelvin: 6700,
      tint: 0.06,
      saturation: 0.84,
      rods: 0.15,
      hold: 0.3,
      haze: 0.08,
    },
  },
  {
    id: 'blue-hour',
    name: 'Blue hour',
    night: {
      hour: 0.44,
      exposure: -3.2,
      kelvin: 9800,
      tint: 0,
      saturation: 0.82,
      rods: 0.3,
      hold: 0.35,
      haze: 0.1,
    },
  },
  {
    id: 'after-rain',
    name: 'After rain',
    night: {
      hour: 0.6,
      exposure: -4.2,
      kelvin: 7200,
      tint: -0.1,
      saturation: 0.5,
      rods: 0.6,
      hold: 0.45,
      haze: 0.22,
    },
  },
  {
    id: 'foggy-town',
    name: 'Foggy town',
    night: {
      hour: 0.66,
      exposure: -4,
      kelvin: 6600,
      tint: -0.04,
      saturation: 0.32,
      rods: 0.6,
      hold: 0.6,
      haze: 0.55,
    },
  },
  {
    id: 'moonlight',
    name: 'Moonlight',
    night: {
      hour: 0.82,
      exposure: -4.1,
      kelvin: 8800,
      tint: -0.03,
      saturation: 0.3,
      rods: 1,
      hold: 0.2,
      haze: 0.06,
    },
  },
  {
    id: 'deep-night',
    name: 'Deep night',
    night: {
      hour: 1,
      exposure: -5.9,
      kelvin: 7600,
      tint: 0,
      saturation: 0.4,
      rods: 0.9,
      hold: 0.4,
      haze: 0.08,
    },
  },
  {
    id: 'lamps-only',
    name: 'Lamps only',
    night: {
      hour: 0.92,
      exposure: -7.2,
      kelvin: 7000,
      tint: 0,
      saturation: 0.3,
      rods: 1,
      hold: 0.6,
      haze: 0.1,
    },
  },
];

/** The nocturne of an id. */
export function findNocturne(id: string): Nocturne | undefined {
  return NOCTURNES.find((nocturne) => nocturne.id === id);
}
