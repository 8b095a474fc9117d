import { ValidationError } from 'yup';
import { upgradeScene } from './upgrade';
import { sceneSchema, SCENE_VERSION, type Scene } from './schema';

/** A document that cannot be read, with a reason a person understands. */
export class SceneFormatError extends Error {
  override name = 'SceneFormatError';
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
  try {
    return sceneSchema.validateSync(upgradeScene(head), { strict: true });
  } catch (error) {
    if (error instanceof ValidationError)
      throw new SceneFormatError(`The scene is damaged: ${error.message}.`);
    throw error;
  }
}
