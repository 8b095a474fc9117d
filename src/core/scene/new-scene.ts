import { hourValues } from '../night/hour';
import { SCENE_VERSION, type Scene } from './schema';

/** Lens and eye height of a photo that says nothing about them. */
const UNKNOWN = { lens: 35, eyeHeight: 1.6, horizon: 0.5 } as const;

/** An hour at which a lamp sits about right. */
const FIRST_HOUR = 0.58;

/** An untouched scene around a plate: no fixture burns, the ground plan is a guess. */
export function newScene(title: string, plate: Scene['plate'], lens?: number): Scene {
  return {
    format: 'sundew-scene',
    version: SCENE_VERSION,
    title,
    plate,
    night: { hour: FIRST_HOUR, ...hourValues(FIRST_HOUR), tint: 0, hold: 0.35, haze: 0.1 },
    plan: {
      horizon: { left: UNKNOWN.horizon, right: UNKNOWN.horizon },
      eyeHeight: UNKNOWN.eyeHeight,
      lens: lens ?? UNKNOWN.lens,
    },
    fixtures: [],
    circuits: [],
    desk: { ambient: 0, master: 0 },
  };
}
