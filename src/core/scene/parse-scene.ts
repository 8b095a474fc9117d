import { object, string, ValidationError } from 'yup';
import { referenceFault } from './references';
import { upgradeScene } from './upgrade';
import { sceneSchema, SCENE_VERSION, type Night, type Scene } from './schema';
import { nightSchema } from '../night/night-schema';

/** A document that cannot be read, with a reason a person understands. */
export class SceneFormatError extends Error {
  override name = 'SceneFormatError';
}

/** The reason in what a schema throws. */
function reading<T>(what: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof ValidationError)
      throw new SceneFormatError(`The ${what} is damaged: ${error.message}.`);
    throw error;
  }
}

/** A document of an older version, brought up to date. One whose parts are not what they should be cannot be. */
function upgraded<T extends object>(what: string, document: T): T {
  try {
    return upgradeScene(document);
  } catch {
    throw new SceneFormatError(`The ${what} is damaged: it cannot be brought up to date.`);
  }
}

/** A value as a scene of the newest version. Throws SceneFormatError with the first fault. */
export function checkedScene(value: unknown): Scene {
  const scene = reading('scene', () => sceneSchema.validateSync(value, { strict: true }) as Scene);
  const fault = referenceFault(scene);
  if (fault) throw new SceneFormatError(`The scene is damaged: ${fault}.`);
  return scene;
}

/**
 * A plain JSON value as a scene. Throws SceneFormatError for what is not a scene of a version this code knows, with
 * the first fault's path in the message.
 */
export function parseScene(value: unknown): Scene {
  const head = value as { format?: unknown; version?: unknown } | null | undefined;
  if (typeof head !== 'object' || head === null || head.format !== 'sundew-scene') {
    throw new SceneFormatError('This is not a Sundew scene.');
  }
  if (typeof head.version === 'number' && head.version > SCENE_VERSION) {
    throw new SceneFormatError('This scene was made by a newer Sundew. Update Sundew to open it.');
  }
  return checkedScene(upgraded('scene', head));
}

/** A night with its name, as a file carries it from one installation to another. */
export interface NocturneFile {
  format: 'sundew-nocturne';
  version: number;
  name: string;
  night: Night;
  /** Text of the look-up table that the night uses. */
  cube?: string;
}

const nocturneSchema = object({
  name: string().strict().required().trim().max(80),
  night: nightSchema,
  cube: string().strict(),
}).required();

/** A plain JSON value as a nocturne of the newest version. Throws SceneFormatError. */
export function parseNocturne(value: unknown): NocturneFile {
  const head = value as Partial<NocturneFile> | null | undefined;
  if (typeof head !== 'object' || head === null || head.format !== 'sundew-nocturne') {
    throw new SceneFormatError('This file is not a Sundew nocturne.');
  }
  if (typeof head.version !== 'number' || head.version > SCENE_VERSION) {
    throw new SceneFormatError('This nocturne was made by a newer Sundew. Update Sundew to use it.');
  }
  const now = upgraded('nocturne', head);
  const { name, night, cube } = reading('nocturne', () => nocturneSchema.validateSync(now, { strict: true }));
  return { format: 'sundew-nocturne', version: SCENE_VERSION, name, night, cube };
}
