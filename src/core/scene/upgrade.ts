import { WHOLE_FRAME } from '../frame/frame';
import { PLAIN_GRADE } from '../night/starting-night';

/** A document of any version, as it was written. */
interface Versioned {
  version?: unknown;
  frame?: object;
  mattes?: object[];
  places?: object[];
  night?: object;
}

/** Turns a document of a version into one of the next. */
const STEPS: Record<number, (old: Versioned) => Versioned> = {
  // 2 added rod vision and the hold on highlights. Off, they leave an older night as it was.
  1: (old) => ({ ...old, version: 2, night: { ...old.night, rods: 0, hold: 0 } }),
  // 3 added the frame, mattes, and all that shapes the night beyond its light. Plain, they leave a picture as it was.
  2: (old) => ({
    ...old,
    version: 3,
    frame: { ...WHOLE_FRAME, ratio: 0 },
    mattes: [],
    places: [],
    night: { ...old.night, ...PLAIN_GRADE },
  }),
};

/** An older document as the newest version; a newest one as it is. It is not checked. */
export function upgradeScene<T extends object>(document: T): T {
  let now: Versioned = document;
  while (typeof now.version === 'number' && STEPS[now.version]) now = STEPS[now.version](now);
  return now as T;
}
