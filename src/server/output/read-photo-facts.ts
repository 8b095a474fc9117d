import exifr from 'exifr';
import type { PhotoFacts } from '@/core/output/photo-facts';

/** Longest text that is taken from a photo's file, characters. */
const LONGEST = 500;

const TAGS = [
  ...['Make', 'Model', 'LensModel', 'Artist', 'Copyright', 'DateTimeOriginal', 'ExposureTime', 'FNumber'],
  ...['ISO', 'FocalLength', 'GPSLatitude', 'GPSLatitudeRef', 'GPSLongitude', 'GPSLongitudeRef'],
];

const text = (value: unknown): string | undefined =>
  typeof value === 'string' && value.trim() !== '' ? value.trim().slice(0, LONGEST) : undefined;

const above0 = (value: unknown): number | undefined =>
  typeof value === 'number' && Number.isFinite(value) && value > 0 ? value : undefined;

/** A time as the camera's clock showed it: tags name no zone. */
const clock = (value: unknown): string | undefined =>
  typeof value === 'string' && /^\d{4}(:\d\d){2} (\d\d:){2}\d\d$/.test(value)
    ? value.replace(':', '-').replace(':', '-').replace(' ', 'T')
    : undefined;

type Tags = Record<string, unknown>;

async function readTags(path: string): Promise<Tags> {
  try {
    const how = { pick: TAGS, reviveValues: false, translateValues: false, xmp: false };
    return ((await exifr.parse(path, how)) as Tags | undefined) ?? {};
  } catch {
    return {};
  }
}

/** Reads what a photo's file says of itself. A file that says nothing, or nothing that can be read, says nothing. */
export async function readPhotoFacts(path: string): Promise<PhotoFacts> {
  const tags = await readTags(path);
  const { latitude, longitude } = tags;
  const hasPlace = typeof latitude === 'number' && typeof longitude === 'number';
  return {
    make: text(tags.Make),
    model: text(tags.Model),
    lens: text(tags.LensModel),
    artist: text(tags.Artist),
    copyright: text(tags.Copyright),
    taken: clock(tags.DateTimeOriginal),
    exposureTime: above0(tags.ExposureTime),
    fNumber: above0(tags.FNumber),
    iso: above0(tags.ISO),
    focalLength: above0(tags.FocalLength),
    ...(hasPlace && { place: { latitude, longitude } }),
  };
}
