import libraw from 'libraw-wasm/dist/libraw.js';
import { srgb } from '@/core/color/srgb';
import type { DecodedCodes } from './decode-job';

/** sRGB primaries, 16 bits, the camera's own white balance, nothing brightened by guess. */
const SETTINGS = {
  outputColor: 1,
  outputBps: 16,
  useCameraWb: true,
  noAutoBright: true,
  userQual: 3,
} as const;

/** ITU-R BT.709 transfer, in which LibRaw writes: code to linear light. */
const bt709 = (code: number) => (code < 0.081 ? code / 4.5 : ((code + 0.099) / 1.099) ** (1 / 0.45));

/** A camera's raw file or DNG, developed by LibRaw and turned upright. Throws for what is none. */
export async function developRaw(file: Uint8Array, wasmBinary: Uint8Array): Promise<DecodedCodes> {
  const { LibRaw } = await libraw({ wasmBinary });
  const raw = new LibRaw();
  raw.open(new Uint8Array(file), SETTINGS);
  const image = raw.imageData();
  if (!image?.data || image.width * image.height === 0) throw new Error('There is no picture in this file.');
  const { width, height, colors } = image;
  const toSrgb = Uint16Array.from({ length: 65536 }, (_, code) =>
    Math.round(65535 * Math.min(1, srgb.encode(bt709(code / 65535)))),
  );
  const data = new Uint16Array(3 * width * height);
  for (let i = 0; i < width * height; i++) {
    for (let c = 0; c < 3; c++) data[3 * i + c] = toSrgb[image.data[colors * i + Math.min(c, colors - 1)]];
  }
  return { data, width, height };
}
