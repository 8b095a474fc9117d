import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Region } from '@/core/plane/region';
import { createCodeLoops, type CodeLoops } from '@/engine/kernels/code-loops';
import { loadKernels } from '@/engine/pool/node-pool';
import { servedSizes, type Size } from '@/engine/sizes';
import { AppError } from '../http/app-error';
import { assetPath, touch } from '../assets/asset-store';
import { keepCopy } from '../assets/keep-copy';
import { developedSize, keepDeveloped, readDeveloped } from './developed-copies';
import { isRaw, openPlate, type OpenedPlate, type PlatePicture } from './open-plate';
import { cutPlate, shrinkPlate } from './plate-picture';
import { rememberLast } from './remember-last';

/** Gives parts of plates, at their own or at a smaller size. */
export interface PlateReader {
  /**
   * Interleaved RGB of a region, 16-bit sRGB codes, 3 * width * height. Sizes above the plate's own are refused. Rejects when
   * `signal` says that nobody waits for it any more.
   */
  read(hash: string, region: Region, signal?: AbortSignal): Promise<Uint16Array>;
  /** Takes over a plate that was just decoded, so that it need not be decoded again. */
  prime(hash: string, plate: OpenedPlate): Promise<void>;
  /** Begins what the first look at a large plate needs, while nobody waits for it yet. */
  getReady(hash: string): void;
}

/** Least width of the copy of a large plate that stands between it and small ones, pixels. */
const MIDDLE_WIDTH = 1000;

/**
 * A reader of a data folder's plates. The plate that was read last stays decoded, since a picture is read band by band.
 * Smaller sizes are area averages in linear light; those that are asked for again are kept beside the assets, and so are
 * developed raw files.
 */
export const createPlateReader = (dataDir: string): PlateReader => new FolderPlates(dataDir);

class FolderPlates implements PlateReader {
  private bound?: CodeLoops;
  private readonly decoded = rememberLast((hash) => this.decode(hash));
  private readonly sizeOf = rememberLast((hash) => this.readSize(hash));
  private readonly middleOf = rememberLast((hash) => this.shrinkToMiddle(hash));
  private readonly shrunk = rememberLast((key) => {
    const [hash, width, height] = key.split(' ');
    return this.shrink(hash, { width: Number(width), height: Number(height) });
  });

  constructor(private readonly dataDir: string) {}

  async read(hash: string, region: Region, signal?: AbortSignal): Promise<Uint16Array> {
    const { fullWidth, fullHeight } = region;
    const { width, height } = await this.sizeOf(hash);
    if (width === fullWidth && height === fullHeight)
      return cutPlate(await this.decoded(hash), region, this.loops, signal);
    if (fullWidth > width || fullHeight > height) {
      throw new AppError(400, 'too-large', 'A plate cannot be read larger than it is.');
    }
    signal?.throwIfAborted();
    return cutPlate(await this.shrunk(`${hash} ${fullWidth} ${fullHeight}`), region, this.loops, signal);
  }

  async prime(hash: string, plate: OpenedPlate): Promise<void> {
    this.decoded.set(hash, plate.picture);
    if (isRaw(plate.facts)) await keepDeveloped(this.developed(hash), plate.picture);
  }

  getReady(hash: string): void {
    // Who looks at it later hears of what went wrong.
    this.middleOf(hash).catch(() => undefined);
  }

  /** Bound when the first plate is read. */
  private get loops(): CodeLoops {
    return (this.bound ??= createCodeLoops(loadKernels()));
  }

  private derived(name: string): string {
    return join(this.dataDir, 'derived', name);
  }

  private developed(hash: string): string {
    return this.derived(`${hash}.raw16`);
  }

  private async readSize(hash: string): Promise<Size> {
    const developed = await developedSize(this.developed(hash));
    if (developed) return developed;
    const meta = await sharp(assetPath(this.dataDir, hash))
      .metadata()
      .catch(() => undefined);
    return meta?.autoOrient ?? (await this.decoded(hash));
  }

  private async decode(hash: string): Promise<PlatePicture> {
    const path = assetPath(this.dataDir, hash);
    await touch(path);
    const developed = await readDeveloped(this.developed(hash));
    if (developed) return developed;
    const plate = await openPlate(path, (await stat(path)).size);
    if (isRaw(plate.facts)) await keepDeveloped(this.developed(hash), plate.picture);
    return plate.picture;
  }

  /** A copy of a large plate, a whole number of times smaller, from which still smaller ones are made quickly. */
  private async shrinkToMiddle(hash: string): Promise<PlatePicture | undefined> {
    const { width, height } = await this.sizeOf(hash);
    const times = Math.floor(width / MIDDLE_WIDTH);
    if (times < 2) return undefined;
    const size = { width: Math.round(width / times), height: Math.max(1, Math.round(height / times)) };
    return { ...size, data: await shrinkPlate(await this.decoded(hash), size, this.loops) };
  }

  private async shrink(hash: string, size: Size): Promise<PlatePicture> {
    const kept = this.derived(`${hash}-${size.width}x${size.height}.u16`);
    const bytes = 6 * size.width * size.height;
    const found = await readFile(kept).catch(() => undefined);
    if (found?.byteLength === bytes) {
      await touch(kept);
      return { data: new Uint16Array(found.buffer, found.byteOffset, bytes / 2), ...size };
    }
    const middle = await this.middleOf(hash);
    const source = middle && middle.width >= 2 * size.width ? middle : await this.decoded(hash);
    const data = await shrinkPlate(source, size, this.loops);
    if (isServed(await this.sizeOf(hash), size)) await keepCopy(kept, new Uint8Array(data.buffer));
    return { data, ...size };
  }
}

/** Checks that a plate is served at the size of a region. Throws 400. */
export function requireServed(plate: Size, { fullWidth: width, fullHeight: height }: Region): void {
  if (!isServed(plate, { width, height }))
    throw new AppError(400, 'bad-size', 'A plate is not served at this size.');
}

/** Whether a plate is served at a size. */
const isServed = (plate: Size, { width, height }: Size): boolean =>
  servedSizes(plate).some((size) => size.width === width && size.height === height);
