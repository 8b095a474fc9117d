/** How finished pictures can be written. */
export const OUTPUT_FORMATS = {
  jpeg: {
    label: 'JPEG',
    says: 'small, opens anywhere',
    ending: 'jpg',
    mime: 'image/jpeg',
    bits: 8,
    hasQuality: true,
  },
  png: {
    label: 'PNG',
    says: 'every pixel as it is',
    ending: 'png',
    mime: 'image/png',
    bits: 8,
    hasQuality: false,
  },
  png16: {
    label: 'PNG, 16 bit',
    says: 'finer steps, to work on',
    ending: 'png',
    mime: 'image/png',
    bits: 16,
    hasQuality: false,
  },
  tiff: {
    label: 'TIFF, 16 bit',
    says: 'finer steps, for print and retouching',
    ending: 'tif',
    mime: 'image/tiff',
    bits: 16,
    hasQuality: false,
  },
  tiff32: {
    label: 'TIFF, 32 bit',
    says: 'linear light as floats, to compute with',
    ending: 'tif',
    mime: 'image/tiff',
    bits: 16,
    hasQuality: false,
    isLinear: true,
  },
  webp: {
    label: 'WebP',
    says: 'smaller, for pages',
    ending: 'webp',
    mime: 'image/webp',
    bits: 8,
    hasQuality: true,
  },
  avif: {
    label: 'AVIF',
    says: 'smallest, slow to write',
    ending: 'avif',
    mime: 'image/avif',
    bits: 8,
    hasQuality: true,
  },
  avif10: {
    label: 'AVIF, 10 bit',
    says: 'as small, without steps in a dark sky',
    ending: 'avif',
    mime: 'image/avif',
    bits: 16,
    hasQuality: true,
  },
  ora: {
    label: 'OpenRaster, layers',
    says: 'the night, and each circuit’s light as a layer to be added, for painting',
    ending: 'ora',
    mime: 'image/openraster',
    bits: 8,
    hasQuality: false,
    hasLayers: true,
  },
  exr: {
    label: 'OpenEXR, layers',
    says: 'linear light of day, night, sky and each circuit, depth and normals, for compositing',
    ending: 'exr',
    mime: 'image/x-exr',
    bits: 16,
    hasQuality: false,
    hasLayers: true,
  },
} as const satisfies Record<string, OutputForm>;

interface OutputForm {
  label: string;
  /** What it is good for. */
  says: string;
  /** Of its files' names. */
  ending: string;
  mime: string;
  /** Of a channel, as the picture is made. */
  bits: 8 | 16;
  /** Whether it loses something for its size, by a quality. */
  hasQuality: boolean;
  /** Whether it holds the picture's light taken apart rather than one picture. */
  hasLayers?: true;
  /** Whether it holds linear light, in the primaries of sRGB, rather than codes with a profile. */
  isLinear?: true;
}

export type OutputFormat = keyof typeof OUTPUT_FORMATS;

export const OUTPUT_FORMAT_NAMES = Object.keys(OUTPUT_FORMATS) as OutputFormat[];

/** Least length of a picture's longer side, pixels. */
export const SHORTEST_OUTPUT = 16;

/** The colours that codes stand for. */
export const OUTPUT_COLOURS = ['srgb', 'p3'] as const;
export type OutputColours = (typeof OUTPUT_COLOURS)[number];

/** What goes along of that which the photo's file says of itself. */
export const OUTPUT_FACTS = ['all', 'placeless', 'none'] as const;
export type OutputFacts = (typeof OUTPUT_FACTS)[number];

/** How a finished picture is written. */
export interface OutputChoice {
  format: OutputFormat;
  /** 1 to 100; for formats that have one. */
  quality: number;
  /** Length of its longer side, pixels; no more than it has. Left out: all of it. */
  long?: number;
  /** Left out: sRGB. */
  colours?: OutputColours;
  /** 0 to 1; left out: none. */
  sharpen?: number;
  /** Left out: all but the place. */
  facts?: OutputFacts;
}

/** Size of a picture whose longer side is to be so long: never larger than it is. */
export function outputSize(
  full: { width: number; height: number },
  long?: number,
): { width: number; height: number } {
  const longest = Math.max(full.width, full.height);
  if (long === undefined || long >= longest) return full;
  const side = (n: number) => Math.max(1, Math.round((n * long) / longest));
  return { width: side(full.width), height: side(full.height) };
}
