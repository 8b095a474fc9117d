import type { FileHandle } from 'node:fs/promises';
import sharp from 'sharp';
import { ZipFile } from 'yazl';
import { burns, withBurning } from '@/core/picture/layers';
import type { Scene } from '@/core/scene/schema';
import { coverageOf } from '@/engine/readouts/coverage';
import { dayRgb } from './day-picture';
import { renderRgb, straightened, regionFor, type RgbCodes } from './render-picture';
import type { OutputWork } from './write-output';
import { writeZip } from './write-zip';

/** Longest side of the small picture that a file manager shows. */
const THUMBNAIL = 256;

/** A layer of the stack. */
interface OraLayer {
  name: string;
  file: string;
  /** Of the W3C compositing specification, as OpenRaster names it. */
  blend: 'svg:src-over' | 'svg:plus';
  visible: boolean;
}

const escaped = (name: string) =>
  name.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`).replace(/[^\x20-\uffff]/g, '');

/** The stack, its top layer first. */
export function stackXml(layers: readonly OraLayer[], { width, height }: OutputWork['size']): string {
  const lines = layers.map(
    ({ name, file, blend, visible }) =>
      `    <layer name="${escaped(name)}" src="${file}" composite-op="${blend}" opacity="1.0" ` +
      `visibility="${visible ? 'visible' : 'hidden'}" x="0" y="0"/>`,
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<image version="0.0.3" w="${width}" h="${height}">`,
    '  <stack>',
    ...lines,
    '  </stack>',
    '</image>',
    '',
  ].join('\n');
}

/** A scene in which only the first circuits burn, and the moon where none is left out. */
export function withFirst(scene: Scene, count: number): Scene {
  const lit = scene.circuits.filter((circuit) => burns(circuit, scene)).slice(0, count);
  return withBurning(scene, (circuit) => lit.includes(circuit));
}

/**
 * What a layer adds to the one below so that both come to what is above: `upper - lower`. Film lets a channel sink where others rise; there
 * the lower one is lowered, so that layers only ever add and their sum is exact.
 */
export function added(upper: RgbCodes, lower: RgbCodes): Uint8Array {
  const out = new Uint8Array(upper.length);
  for (let i = 0; i < upper.length; i++) {
    if (lower[i] > upper[i]) lower[i] = upper[i];
    out[i] = upper[i] - lower[i];
  }
  return out;
}

/**
 * Writes a scene as OpenRaster (freedesktop.org, baseline): the night, each circuit's light to be added over it, the day and the mattes
 * hidden. The layers add up to the merged picture, code by code.
 */
export async function writeOra(file: FileHandle, work: OutputWork): Promise<void> {
  const { renderer, space, scene, size, signal, onProgress } = work;
  const zip = new ZipFile();
  const stored = { compress: false };
  zip.addBuffer(Buffer.from('image/openraster'), 'mimetype', stored);
  const png = (rgb: RgbCodes) =>
    sharp(rgb, { raw: { ...size, channels: 3 } })
      .withIccProfile('srgb')
      .png()
      .toBuffer();
  const put = async (name: string, rgb: RgbCodes) => zip.addBuffer(await png(rgb), name, stored);
  const burning = scene.circuits.filter((circuit) => burns(circuit, scene));
  const steps = burning.length + 1;
  const made = (step: number) => (done: number) => onProgress((0.9 * (step + done)) / steps);

  let upper = await renderRgb(renderer, scene, size, signal, made(0), 'later');
  await put('mergedimage.png', upper);
  const small = sharp(upper, { raw: { ...size, channels: 3 } }).resize(THUMBNAIL, THUMBNAIL, {
    fit: 'inside',
  });
  zip.addBuffer(await small.png().toBuffer(), 'Thumbnails/thumbnail.png', stored);
  const layers: OraLayer[] = [];
  for (const [k, circuit] of [...burning].reverse().entries()) {
    const below = withFirst(scene, burning.length - k - 1);
    const lower = await renderRgb(renderer, below, size, signal, made(k + 1), 'later');
    const name = `data/circuit${burning.length - k}.png`;
    await put(name, added(upper, lower));
    layers.push({ name: circuit.name, file: name, blend: 'svg:plus', visible: true });
    upper = lower;
  }
  await put('data/night.png', upper);
  layers.push({ name: 'Night', file: 'data/night.png', blend: 'svg:src-over', visible: true });
  await put('data/day.png', await dayRgb(space.plates, scene, size, signal));
  layers.push({ name: 'Day', file: 'data/day.png', blend: 'svg:src-over', visible: false });
  for (const [k, matte] of scene.mattes.entries()) {
    const name = `data/matte${k + 1}.png`;
    await put(name, await matteRgb(work, matte.id));
    layers.push({ name: `Matte: ${matte.name}`, file: name, blend: 'svg:src-over', visible: false });
  }
  // What is hidden lies on top, where it can be shown over all.
  const hidden = layers.filter(({ visible }) => !visible);
  const stack = [...hidden, ...layers.filter(({ visible }) => visible)];
  zip.addBuffer(Buffer.from(stackXml(stack, size)), 'stack.xml');
  await writeZip(file, zip, signal);
  onProgress(1);
}

/** A matte as the frame shows it, white where it covers. */
async function matteRgb({ renderer, scene, size, signal }: OutputWork, id: string): Promise<RgbCodes> {
  const { width, height, data } = await renderer.read(coverageOf(scene, id), signal);
  const region = regionFor(scene, size);
  const { data: grey } = await sharp(data, { raw: { width, height, channels: 1 } })
    .resize(region.fullWidth, region.fullHeight, { fit: 'fill' })
    .extract({ left: region.left, top: region.top, width: region.width, height: region.height })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return straightened(new Uint8Array(grey), region, scene, size, signal);
}
