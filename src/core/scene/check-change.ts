import { ArraySchema, ValidationError, type AnyObject, type Lazy, type Schema } from 'yup';
import { referenceFault } from './references';
import { SceneFormatError } from './parse-scene';
import { sceneSchema, type Scene } from './schema';

/** A list's schema without that of its items: how many there may be, and that no two are alike. */
function withoutItems(list: ArraySchema<unknown[] | undefined, AnyObject>): Schema {
  const bare = list.clone() as { innerType?: Schema } & Schema;
  bare.innerType = undefined;
  return bare;
}

/** How a part is checked: as it is, its place in the scene in what is said of it. */
const at = (path: string): object => ({ strict: true, path });

/** Checks a part of a scene; of a list only the items that were not there before, and the list as a whole. */
function checkPart(schema: Schema, value: unknown, before: unknown, path: string): void {
  if (!(schema instanceof ArraySchema) || !Array.isArray(value) || !Array.isArray(before)) {
    schema.validateSync(value, at(path));
    return;
  }
  const known = new Set<unknown>(before);
  const item = schema.innerType as Schema | Lazy<unknown>;
  value.forEach((one: unknown, i) => {
    if (!known.has(one)) item.validateSync(one, at(`${path}[${i}]`));
  });
  withoutItems(schema as ArraySchema<unknown[] | undefined, AnyObject>).validateSync(value, at(path));
}

/**
 * What is wrong with a document as a scene, given one that is sound and of which it shares what did not change, as patches leave it: only
 * what is new is looked at. The first fault; undefined where all is well.
 */
export function changeFault(document: unknown, before: Scene): string | undefined {
  const fields = sceneSchema.fields as unknown as Record<string, Schema>;
  const now = document as Record<string, unknown>;
  const was = before as Record<string, unknown>;
  const unknown = Object.keys(now).find((key) => !fields[key]);
  if (unknown !== undefined) return `this field has unspecified keys: ${unknown}`;
  try {
    for (const [key, schema] of Object.entries(fields))
      if (now[key] !== was[key]) checkPart(schema, now[key], was[key], key);
  } catch (error) {
    if (error instanceof ValidationError) return error.message;
    throw error;
  }
  return referenceFault(document as Scene);
}

/** A document as a scene, by `changeFault`: the verdict is that of `checkedScene`. Throws SceneFormatError with the first fault. */
export function checkedChange(document: unknown, before: Scene): Scene {
  const fault = changeFault(document, before);
  if (fault) throw new SceneFormatError(`The scene is damaged: ${fault}.`);
  return document as Scene;
}
