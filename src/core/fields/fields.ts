import { number, object, string } from 'yup';
import { RANGES } from './ranges';

/* Fields that several parts of the document share. */

export const ranged = (name: keyof typeof RANGES) =>
  number().strict().required().min(RANGES[name].min).max(RANGES[name].max);

export const name = () => string().strict().required().trim().max(80);
export const id = () =>
  string()
    .strict()
    .required()
    .matches(/^[\w-]{1,40}$/, '${path} is not a valid id');

/** A coordinate of a place on the plate: it may lie outside the picture, but not absurdly far. */
export const COORDINATE = { min: -4, max: 5 } as const;

const coordinate = () => number().strict().required().min(COORDINATE.min).max(COORDINATE.max);

/** A place on the plate. */
export const platePoint = () => object({ u: coordinate(), v: coordinate() }).noUnknown().required();

/** A linear colour of luminance 1, as picked off the picture. */
export type PickedColor = [r: number, g: number, b: number];

/** A picked colour in JSON Schema. */
export const COLOR_FORM = {
  ...{ type: 'array', items: { type: 'number', minimum: 0, maximum: 100 }, minItems: 3, maxItems: 3 },
} as const;

export const isColor = (value: unknown): value is PickedColor =>
  Array.isArray(value) &&
  value.length === 3 &&
  value.every((c) => typeof c === 'number' && c >= 0 && c <= 100);

export const hash = (path: string) =>
  string()
    .strict()
    .required()
    .matches(/^[0-9a-f]{64}$/, `${path} is not a SHA-256`);

/** Whether no two items of a list have the same id. A list is asked before its items: they may be anything yet. */
export const unique = (items: readonly unknown[] | undefined): boolean =>
  new Set(items?.map((item) => (item as { id?: unknown } | null)?.id)).size === (items?.length ?? 0);

/** A share, 0 to 1. */
export const fraction = () => number().strict().required().min(0).max(1);
