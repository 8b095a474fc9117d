import { WHOLE_FRAME } from '../frame/frame';
import { UNSAID_HORIZON } from '../geometry/ground';
import { FINISHES } from '../plan/finishes';
import { FIRST_HOUR, startingNight } from '../night/starting-night';
import { FIRST_LENS } from '../lens/lens-schema';
import { FIRST_SKY } from '../sky/sky-schema';
import { RANGES } from '../fields/ranges';
import { SCENE_VERSION, type Circuit, type Grip, type Moon, type Scene } from './schema';

/** Lens, eye height and horizon of a photo that says nothing about them. */
export const UNKNOWN = { lens: 35, eyeHeight: 1.6, horizon: UNSAID_HORIZON } as const;

/** Where the moon stands before anyone has moved it: high at the left, behind the eye. Moonlight is sunlight, a little warmer. */
export const FIRST_MOON: Moon = { azimuth: -120, elevation: 40, kelvin: 4150 };

/** All parts take all of the light. */
export const PLAIN_GRIP: Grip = { dark: 0.1, bright: 0.6, darkShare: 1, brightShare: 1 };

/** A circuit with everything at its middle. */
export const plainCircuit = (id: string, name: string): Circuit => ({
  ...{ id, name, level: 0, lampLevel: 0, spillLevel: 0, warmth: 0 },
  grip: { ...PLAIN_GRIP },
  ...{ muted: false, solo: false },
});

/** A surface that mirrors nothing; once it does, it is as rough as a damp road. */
export const PLAIN_SURFACE = FINISHES.dry;

/** The same of a standee, which has a crease of its own. */
export const PLAIN_FINISH = { sheen: PLAIN_SURFACE.sheen, roughness: PLAIN_SURFACE.roughness } as const;

/** A seed of a photo's own: another photo gets other stars and clouds. `asset`: its hash, hexadecimal. */
function seedOf(asset: string): number {
  const digits = Number.parseInt(asset.slice(0, 8), 16);
  return 1 + (Number.isNaN(digits) ? 0 : digits % RANGES.seed.max);
}

function firstSky(asset: string): Scene['sky'] {
  const { clouds, stars, ...sky } = structuredClone(FIRST_SKY);
  const seed = seedOf(asset);
  return { ...sky, clouds: { ...clouds, seed }, stars: { ...stars, seed } };
}

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
      ground: { ...PLAIN_SURFACE },
      mirrors: 1,
      walls: [],
      standees: [],
      decks: [],
      glosses: [],
      strokes: [],
    },
    fixtures: [],
    touches: [],
    drifts: [],
    placed: [],
    circuits: [],
    cues: [],
    sky: firstSky(plate.asset),
    moon: { ...FIRST_MOON },
    lens: structuredClone(FIRST_LENS),
    desk: { ambient: 0, sky: 0, moon: RANGES.level.min, stars: 0, haze: 0, spikes: 0, veil: 0, master: 0 },
  };
}
