import { extname } from 'node:path';
import { parseArgs } from 'node:util';
import {
  OUTPUT_COLOURS,
  OUTPUT_FACTS,
  OUTPUT_FORMATS,
  type OutputChoice,
  type OutputFormat,
} from '@/core/output/output-formats';

const USAGE =
  'Usage: npm run render -- scene.sundew --out night.png [--width N] [--quality N] [--deep] [--float] ' +
  '[--colours srgb|p3] [--sharpen 0 to 1] [--facts all|placeless|none] [--circuits FOLDER]';

/** What was asked for cannot be understood. */
export class UsageError extends Error {
  constructor() {
    super(USAGE);
  }
}

/** Formats by the ending of a file's name; those of finer steps where they are asked for. */
const FORMATS: Record<string, OutputFormat> = {
  ...{ '.jpg': 'jpeg', '.jpeg': 'jpeg', '.png': 'png', '.webp': 'webp', '.avif': 'avif' },
  ...{ '.tif': 'tiff', '.tiff': 'tiff', '.ora': 'ora', '.exr': 'exr' },
};
const DEEP: Partial<Record<OutputFormat, OutputFormat>> = {
  ...{ png: 'png16', avif: 'avif10', tiff: 'tiff', exr: 'exr' },
};
const FLOAT: Partial<Record<OutputFormat, OutputFormat>> = { tiff: 'tiff32', exr: 'exr' };

/** What is to be rendered, and how. */
export interface RenderOrder {
  file: string;
  out: string;
  width?: number;
  choice: OutputChoice;
  /** A folder for pictures of each circuit alone. */
  circuits?: string;
}

/** A number of an option within its range. Throws UsageError. */
function numberOf(text: string | undefined, least: number, most: number, isWhole = true): number | undefined {
  if (text === undefined) return undefined;
  const value = text.trim() === '' ? NaN : Number(text);
  const isSound = isWhole ? Number.isInteger(value) : Number.isFinite(value);
  if (!isSound || value < least || value > most) throw new UsageError();
  return value;
}

/** One of a few words. Throws UsageError. */
function oneOf<Word extends string>(words: readonly Word[], text: string | undefined): Word | undefined {
  const word = words.find((own) => own === text);
  if (text !== undefined && !word) throw new UsageError();
  return word;
}

function parsed(args: string[]) {
  const text = { type: 'string' } as const;
  const flag = { type: 'boolean' } as const;
  const options = {
    ...{ out: text, width: text, quality: text, colours: text, sharpen: text, facts: text, circuits: text },
    ...{ deep: flag, float: flag },
  };
  try {
    return parseArgs({ args, allowPositionals: true, options });
  } catch {
    throw new UsageError();
  }
}

/** The format for a file's name. Throws UsageError. */
function formatOf(out: string, isDeep: boolean, isFloat: boolean): OutputFormat {
  const named = FORMATS[extname(out).toLowerCase()] as OutputFormat | undefined;
  const format = named && (isFloat ? FLOAT[named] : isDeep ? DEEP[named] : named);
  if (!format) throw new UsageError();
  return format;
}

/** Reads the command line. Throws UsageError. */
export function readOrder(args: string[]): RenderOrder {
  const { values, positionals } = parsed(args);
  const { out, circuits } = values;
  if (positionals.length !== 1 || !out) throw new UsageError();
  const format = formatOf(out, values.deep ?? false, values.float ?? false);
  if (circuits !== undefined && 'hasLayers' in OUTPUT_FORMATS[format]) throw new UsageError();
  return {
    ...{ file: positionals[0], out, circuits, width: numberOf(values.width, 1, 40000) },
    choice: {
      ...{ format, quality: numberOf(values.quality, 1, 100) ?? 92 },
      colours: oneOf(OUTPUT_COLOURS, values.colours),
      sharpen: numberOf(values.sharpen, 0, 1, false),
      facts: oneOf(OUTPUT_FACTS, values.facts),
    },
  };
}
