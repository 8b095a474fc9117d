import { array, mixed, number, object, string } from 'yup';
import { TABLE_SIDES, type TableSide } from '@/core/output/night-table';
import { MOST_TOGETHER } from '@/core/output/output-order';
import { switchingSchema } from '@/core/output/switching';
import { unique } from '@/core/fields/fields';
import {
  OUTPUT_COLOURS,
  OUTPUT_FACTS,
  OUTPUT_FORMAT_NAMES,
  SHORTEST_OUTPUT,
  type OutputColours,
  type OutputFacts,
  type OutputFormat,
} from '@/core/output/output-formats';
import { nightSchema } from '@/core/night/night-schema';
import { LIMITS } from './limits';

/** A patch as immer writes it. */
const patchSchema = object({
  op: string().strict().oneOf(['add', 'remove', 'replace']).required(),
  path: array(
    mixed<string | number>((step): step is string | number =>
      ['string', 'number'].includes(typeof step),
    ).required(),
  )
    .strict()
    .required()
    .max(12),
  value: mixed().notRequired(),
})
  .noUnknown()
  .required();

/** Body of a save: entries of the log, in order, the version of scenes they are of, and the revision that they build on. */
export const saveRequest = object({
  version: number().strict().integer().required(),
  base: number().strict().integer().min(0).required(),
  entries: array(
    object({
      id: string().strict().uuid().required(),
      kind: string().strict().oneOf(['do', 'undo', 'redo']).required(),
      label: string().strict().required().max(120),
      patches: array(patchSchema).strict().required().max(5000),
      inverse: array(patchSchema).strict().required().max(5000),
    })
      .noUnknown()
      .required(),
  )
    .strict()
    .required()
    .min(1)
    .max(LIMITS.entriesPerRequest)
    .test('once', 'an entry comes twice', unique),
})
  .noUnknown()
  .required();

/** Body of a copy: the document as the window holds it. */
export const copyRequest = object({ scene: mixed().required() }).noUnknown().required();

const outputChoice = object({
  format: mixed<OutputFormat>().oneOf(OUTPUT_FORMAT_NAMES).required(),
  quality: number().strict().integer().min(1).max(100).required(),
  long: number().strict().integer().min(SHORTEST_OUTPUT).max(LIMITS.regionSide).optional(),
  colours: mixed<OutputColours>().oneOf(OUTPUT_COLOURS).optional(),
  sharpen: number().strict().min(0).max(1).optional(),
  facts: mixed<OutputFacts>().oneOf(OUTPUT_FACTS).optional(),
})
  .noUnknown()
  .required();

/** Body of an output. */
export const outputRequest = outputChoice;

/** Body of an output of several scenes. */
export const picturesRequest = object({
  scenes: array(string().strict().required()).required().min(1).max(MOST_TOGETHER),
  choice: outputChoice,
})
  .noUnknown()
  .required();

/** Query of a night as a table. */
export const tableRequest = object({
  side: mixed<TableSide>().transform(Number).oneOf(TABLE_SIDES).required(),
})
  .noUnknown()
  .required();

/** Body of a switching-on. */
export const switchingRequest = switchingSchema;

const pixels = (least: number) => number().integer().min(least).max(LIMITS.regionSide).required();

/** Query of a plate's codes: a region, as the engine names it. */
export const regionRequest = object({
  fullWidth: pixels(1),
  fullHeight: pixels(1),
  left: pixels(0),
  top: pixels(0),
  width: pixels(1),
  height: pixels(1),
})
  .required()
  .test(
    'inside',
    'the region reaches out of the picture',
    (r) => r.left + r.width <= r.fullWidth && r.top + r.height <= r.fullHeight,
  )
  .test('small', 'the region is too large', (r) => r.width * r.height <= LIMITS.regionPixels);

/** Query of a thumbnail: the day, the night, what an opening window shows, a nocturne of ours or one that was kept. */
export const thumbnailRequest = object({
  of: string()
    .matches(/^[\w-]{1,40}$/)
    .required(),
}).required();

/** Query of a result of a stage: its key, and the build that asks. */
export const resultRequest = object({
  key: string().required().max(400),
  build: string().defined().max(40),
}).required();

const name = () => string().strict().required().trim().max(80);

/** Body of a nocturne that is kept. */
export const nocturneRequest = object({ name: name(), night: nightSchema }).noUnknown().required();

/** Body of a moment that is named: the document as the window holds it. */
export const momentRequest = object({ name: name(), scene: mixed().required() }).noUnknown().required();
