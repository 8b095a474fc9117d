import { WHOLE_FRAME } from '../frame/frame';
import { FIRST_HOUR, startingNight } from '../night/starting-night';
import { SCENE_VERSION, type Scene } from './schema';

/** Lens and eye height of a photo that says nothing about them. */
const UNKNOWN = { lens: 35, eyeHeight: 1.6, horizon: 0.5 } as const;

/** An untouched scene around a plate: no fixture burns, the ground plan is a guess. */
export function newScene(title: string, plate: Scene['plate'], lens?: number): Scene {
  return {
    format: 'sundew-scene',
    version: SCENE_VERSION,
    title,
    plate,
    frame: { ...WHOLE_FRAME, ratio: 0 },
    night: startingNight(FIRST_HOUR),
    mattes: [],
    places: [],
    plan: {
      horizon: { left: UNKNOWN.horizon, right: UNKNOWN.horizon },
      eyeHeight: UNKNOWN.eyeHeight,
      lens: lens ?? UNKNOWN.lens,
      walls: [],
      standees: [],
      decks: [],
    },
    fixtures: [],
    circuits: [],
    desk: { ambient: 0, master: 0 },
  };
}
