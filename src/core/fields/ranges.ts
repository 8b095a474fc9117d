import { clamp } from '../plane/clamp';

/** A number that a person sets: where it may go, how finely it steps, in which unit. */
export interface Range {
  min: number;
  max: number;
  step: number;
  unit: string;
  /** Decimals shown. */
  decimals: number;
}

/** Every number in a scene that a control sets. The schema, the desk and the worksheet read this one table. */
export const RANGES = {
  exposure: { min: -10, max: 2, step: 0.1, unit: 'stops', decimals: 1 },
  kelvin: { min: 1500, max: 20000, step: 50, unit: 'K', decimals: 0 },
  tint: { min: -1, max: 1, step: 0.01, unit: '', decimals: 2 },
  meter: { min: 0, max: 1, step: 0.01, unit: '', decimals: 2 },
  saturation: { min: 0, max: 1.5, step: 0.01, unit: '', decimals: 2 },
  rods: { min: 0, max: 1, step: 0.01, unit: '', decimals: 2 },
  hold: { min: 0, max: 1, step: 0.01, unit: '', decimals: 2 },
  haze: { min: 0, max: 1, step: 0.01, unit: '', decimals: 2 },
  hazeGlow: { min: -4, max: 4, step: 0.1, unit: 'stops', decimals: 1 },
  evenOut: { min: 0, max: 1, step: 0.01, unit: '', decimals: 2 },
  blackPoint: { min: 0, max: 0.9, step: 0.005, unit: '', decimals: 3 },
  whitePoint: { min: 0.05, max: 1, step: 0.005, unit: '', decimals: 3 },
  middle: { min: -2, max: 2, step: 0.02, unit: '', decimals: 2 },
  ceiling: { min: 0.05, max: 1, step: 0.01, unit: '', decimals: 2 },
  roughness: { min: 0.1, max: 1, step: 0.01, unit: '', decimals: 2 },
  strength: { min: 0, max: 1, step: 0.01, unit: '', decimals: 2 },
  tone: { min: 0, max: 1, step: 0.001, unit: '', decimals: 3 },
  darken: { min: 0, max: 6, step: 0.1, unit: 'stops', decimals: 1 },
  poolSize: { min: 0.02, max: 2, step: 0.01, unit: '', decimals: 2 },
  lampPools: { min: 0, max: 3, step: 0.05, unit: '', decimals: 2 },
  framePlace: { min: 0, max: 1, step: 0.001, unit: '', decimals: 3 },
  frameSide: { min: 0.05, max: 1, step: 0.001, unit: '', decimals: 3 },
  angle: { min: -45, max: 45, step: 0.05, unit: '°', decimals: 2 },
  tolerance: { min: 0.005, max: 0.5, step: 0.005, unit: '', decimals: 3 },
  reach: { min: 0.005, max: 0.4, step: 0.005, unit: '', decimals: 3 },
  shoulder: { min: 0, max: 0.4, step: 0.005, unit: '', decimals: 3 },
  brush: { min: 0.0005, max: 0.2, step: 0.001, unit: '', decimals: 3 },
  breadth: { min: 0.02, max: 50, step: 0.01, unit: '', decimals: 2 },
  refine: { min: 0, max: 0.03, step: 0.001, unit: '', decimals: 3 },
  grow: { min: -0.03, max: 0.03, step: 0.0005, unit: '', decimals: 4 },
  feather: { min: 0, max: 0.1, step: 0.001, unit: '', decimals: 3 },
  place: { min: -6, max: 6, step: 0.1, unit: 'stops', decimals: 1 },
  horizon: { min: -0.5, max: 1.5, step: 0.001, unit: '', decimals: 3 },
  wallHeight: { min: 0.05, max: 200, step: 0.1, unit: 'm', decimals: 1 },
  deckHeight: { min: -20, max: 50, step: 0.05, unit: 'm', decimals: 2 },
  standOff: { min: 0, max: 2, step: 0.01, unit: 'm', decimals: 2 },
  depth: { min: 0, max: 10, step: 0.1, unit: 'm', decimals: 1 },
  gripShare: { min: 0, max: 2, step: 0.01, unit: '', decimals: 2 },
  seed: { min: 0, max: 9999, step: 1, unit: '', decimals: 0 },
  count: { min: 0, max: 200, step: 1, unit: '', decimals: 0 },
  warmth: { min: -150, max: 150, step: 5, unit: 'mired', decimals: 0 },
  azimuth: { min: -180, max: 180, step: 1, unit: '°', decimals: 0 },
  elevation: { min: 1, max: 90, step: 1, unit: '°', decimals: 0 },
  eyeHeight: { min: 0.2, max: 50, step: 0.01, unit: 'm', decimals: 2 },
  lens: { min: 10, max: 400, step: 1, unit: 'mm', decimals: 0 },
  level: { min: -10, max: 4, step: 0.1, unit: 'stops', decimals: 1 },
  lumens: { min: 1, max: 100000, step: 50, unit: 'lm', decimals: 0 },
  size: { min: 0.0005, max: 0.3, step: 0.0005, unit: '', decimals: 4 },
  heart: { min: 0.1, max: 1, step: 0.01, unit: '', decimals: 2 },
  skyStops: { min: -6, max: 6, step: 0.1, unit: 'stops', decimals: 1 },
  skyAcross: { min: 0.1, max: 8, step: 0.01, unit: '', decimals: 2 },
  cloudSize: { min: 0.2, max: 5, step: 0.05, unit: '', decimals: 2 },
  cloudHeight: { min: 100, max: 12000, step: 50, unit: 'm', decimals: 0 },
  magnitude: { min: 0, max: 8, step: 0.1, unit: 'mag', decimals: 1 },
  starSize: { min: 0.0002, max: 0.005, step: 0.0001, unit: '', decimals: 4 },
  starColor: { min: 0, max: 3, step: 0.05, unit: '', decimals: 2 },
  driftSize: { min: 0.01, max: 1, step: 0.01, unit: '', decimals: 2 },
  driftTall: { min: 0.05, max: 5, step: 0.05, unit: '', decimals: 2 },
  carried: { min: 0, max: 20, step: 0.05, unit: '', decimals: 2 },
  driftKm: { min: 0, max: 40, step: 0.1, unit: 'km', decimals: 1 },
  trail: { min: 0, max: 240, step: 1, unit: 'min', decimals: 0 },
  moonSize: { min: 0.2, max: 12, step: 0.1, unit: '×', decimals: 1 },
  tilt: { min: -180, max: 180, step: 1, unit: '°', decimals: 0 },
  latitude: { min: -90, max: 90, step: 0.1, unit: '°', decimals: 1 },
  longitude: { min: -180, max: 180, step: 0.1, unit: '°', decimals: 1 },
  hueReach: { min: 5, max: 180, step: 1, unit: '°', decimals: 0 },
  wire: { min: 0.003, max: 0.2, step: 0.001, unit: '', decimals: 3 },
  compass: { min: 0, max: 360, step: 1, unit: '°', decimals: 0 },
  blades: { min: 3, max: 12, step: 1, unit: '', decimals: 0 },
  spikes: { min: 2, max: 24, step: 1, unit: '', decimals: 0 },
  spikeReach: { min: 0.01, max: 0.6, step: 0.01, unit: '', decimals: 2 },
  spikeThickness: { min: 0.0002, max: 0.01, step: 0.0001, unit: '', decimals: 4 },
  veilReach: { min: 0.02, max: 0.6, step: 0.01, unit: '', decimals: 2 },
  iso: { min: 0, max: 25600, step: 100, unit: 'ISO', decimals: 0 },
  grainSize: { min: 0.5, max: 6, step: 0.1, unit: '', decimals: 1 },
  touchLux: { min: 0.1, max: 5000, step: 0.5, unit: 'lux', decimals: 1 },
  touchNits: { min: 0.1, max: 2000, step: 0.1, unit: 'nit', decimals: 1 },
  halo: { min: 0, max: 4, step: 0.01, unit: '', decimals: 2 },
} as const satisfies Record<string, Range>;

/** A number within a range. */
export const clampTo = (value: number, { min, max }: Pick<Range, 'min' | 'max'>): number =>
  clamp(value, min, max);
