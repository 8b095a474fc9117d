// The same photo as another camera, hand or hour gives it: what is found on it should be the same.
import { join } from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { srgb } from '@/core/color/srgb';

type Change = (photo: Sharp) => Sharp | Promise<Sharp>;

/** A change of each pixel's codes, 0 to 1. */
const codes =
  (change: (rgb: [number, number, number]) => readonly number[]): Change =>
  async (photo) => {
    const { data, info } = await photo.raw().toBuffer({ resolveWithObject: true });
    for (let i = 0; i < data.length; i += info.channels) {
      const changed = change([data[i] / 255, data[i + 1] / 255, data[i + 2] / 255]);
      changed.forEach((code, c) => (data[i + c] = Math.round(255 * Math.min(1, Math.max(0, code)))));
    }
    return sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
  };

const exposed = (gain: number) => codes((rgb) => rgb.map((code) => srgb.encode(gain * srgb.decode(code))));
const grey = ([r, g, b]: readonly number[]) => 0.3 * r + 0.6 * g + 0.1 * b;

const TAKES: Readonly<Record<string, Change>> = {
  dark: exposed(0.35),
  bright: exposed(2),
  warm: codes(([r, g, b]) => [1.1 * r, g, 0.75 * b]),
  cold: codes(([r, g, b]) => [0.85 * r, g, 1.1 * b]),
  hard: codes((rgb) =>
    rgb.map((code) => {
      const x = Math.min(1, Math.max(0, grey(rgb) + 1.35 * (code - grey(rgb))));
      return x * x * (3 - 2 * x);
    }),
  ),
  faded: codes((rgb) => rgb.map((code) => 0.16 + 0.75 * code)),
  grey: codes((rgb) => [grey(rgb), grey(rgb), grey(rgb)]),
  soft: (photo) => photo.blur(2.2),
};

/**
 * Another take of a photo, as a JPEG in a folder; the photo itself where none is named. Throws for one that is not there, naming those that
 * are.
 */
export async function otherTake(photo: string, name: string | undefined, folder: string): Promise<string> {
  if (name === undefined) return photo;
  const change = TAKES[name];
  if (!change) throw new Error(`There is no take “${name}”. There are ${Object.keys(TAKES).join(', ')}.`);
  const file = join(folder, `${name}.jpg`);
  await (await change(sharp(photo).removeAlpha())).jpeg({ quality: 80 }).toFile(file);
  return file;
}
