import type {
  Schema,
  SchemaFieldDescription,
  SchemaObjectDescription,
  SchemaInnerTypeDescription,
  SchemaDescription,
} from 'yup';
import { sceneSchema, SCENE_VERSION } from './schema';

/** A JSON Schema, draft 2020-12. */
export type JsonSchema = Record<string, unknown>;

/** What a part of the document says of its form where its package does not know it. */
interface FormMeta {
  /** Its form as JSON Schema. */
  json?: JsonSchema;
  /** Its forms by their kind. */
  variants?: Record<string, Schema>;
}

/** Words of JSON Schema for the least and the most of what is limited. */
const LIMITS: Record<string, [least: string, most: string]> = {
  number: ['minimum', 'maximum'],
  array: ['minItems', 'maxItems'],
  string: ['minLength', 'maxLength'],
};

/** Limits of numbers, texts and lists. */
function limitsOf({ type, tests }: SchemaDescription): JsonSchema {
  const out: JsonSchema = { type };
  const [least, most] = LIMITS[type] ?? [];
  for (const { name, params } of tests) {
    if (name === 'min') out[least] = params!.min;
    if (name === 'max') out[most] = params!.max;
    if (name === 'matches') out.pattern = (params!.regex as RegExp).source;
    if (name === 'integer') out.type = 'integer';
  }
  return out;
}

/** One of several forms, told apart by their kind. */
const oneOf = (variants: Record<string, Schema>): JsonSchema => ({
  oneOf: Object.entries(variants).map(([kind, schema]) => {
    const form = formOf(schema.describe()) as { properties: JsonSchema };
    return { ...form, properties: { ...form.properties, kind: { const: kind } } };
  }),
});

function objectOf(fields: Record<string, SchemaFieldDescription>): JsonSchema {
  const required = Object.keys(fields).filter((name) => !(fields[name] as SchemaDescription).optional);
  const properties = Object.entries(fields).map(([name, field]) => [name, formOf(field)]);
  return {
    ...{ type: 'object', properties: Object.fromEntries(properties) as JsonSchema },
    ...(required.length > 0 && { required }),
    additionalProperties: false,
  };
}

function formOf(field: SchemaFieldDescription): JsonSchema {
  const form = plainFormOf(field);
  return (field as SchemaDescription).nullable ? { anyOf: [form, { type: 'null' }] } : form;
}

function plainFormOf(field: SchemaFieldDescription): JsonSchema {
  const told = field as SchemaDescription;
  const { json, variants } = (told.meta ?? {}) as FormMeta;
  if (json) return json;
  if (variants) return oneOf(variants);
  if (told.oneOf.length > 0) return { enum: told.oneOf };
  if (told.type === 'object') return objectOf((field as SchemaObjectDescription).fields);
  if (told.type !== 'array') return limitsOf(told);
  return {
    ...limitsOf(told),
    items: formOf((field as SchemaInnerTypeDescription).innerType as SchemaFieldDescription),
  };
}

/**
 * The scene's document as JSON Schema: names, types, ranges. What only code checks, such as that ids are unique and that what is referred to
 * is there, it leaves open.
 */
export const sceneJsonSchema = (): JsonSchema => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: `A scene of Sundew, version ${SCENE_VERSION}`,
  ...formOf(sceneSchema.describe()),
});
