import { access, mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { framedSize } from '@/core/frame/frame';
import { OUTPUT_FORMATS, type OutputFormat } from '@/core/output/output-formats';
import type { Scene } from '@/core/scene/schema';
import { takeSceneFile } from '@/server/scenes/intake';
import { assetPath } from '@/server/assets/asset-store';
import { readPhotoFacts } from '@/server/output/read-photo-facts';
import { writeOutput } from '@/server/output/write-output';
import { createServerRenderer } from '@/server/output/render-service';
import { openWorkspace, type Workspace } from '@/server/assets/workspace';

const USAGE = 'Usage: npm run render -- scene.sundew --out night.png [--width N] [--quality N] [--deep]';

/** Formats by the ending of a file's name. */
const FORMATS: Record<string, OutputFormat> = {
  ...{ '.jpg': 'jpeg', '.jpeg': 'jpeg', '.png': 'png', '.webp': 'webp', '.avif': 'avif' },
  ...{ '.tif': 'tiff', '.tiff': 'tiff', '.ora': 'ora', '.exr': 'exr' },
};

/** What was asked for cannot be understood. */
class UsageError extends Error {}

/** What is to be rendered, and how. */
interface Order {
  file: string;
  out: string;
  format: OutputFormat;
  width?: number;
  quality: number;
}

/** A whole number of an option. Throws UsageError. */
function whole(text: string, least: number, most: number): number {
  const value = Number(text);
  if (!Number.isInteger(value) || value < least || value > most) throw new UsageError(USAGE);
  return value;
}

/** Reads the command line. Throws UsageError. */
function readOrder(args: string[]): Order {
  const options = {
    out: { type: 'string' },
    width: { type: 'string' },
    quality: { type: 'string' },
    deep: { type: 'boolean' },
  } as const;
  const { values, positionals } = (() => {
    try {
      return parseArgs({ args, allowPositionals: true, options });
    } catch {
      throw new UsageError(USAGE);
    }
  })();
  const named = FORMATS[extname(values.out ?? '').toLowerCase()];
  const format = values.deep && named === 'png' ? 'png16' : named;
  const form = OUTPUT_FORMATS[format] as (typeof OUTPUT_FORMATS)[OutputFormat] | undefined;
  if (values.deep && form?.bits !== 16) throw new UsageError(USAGE);
  if (positionals.length !== 1 || !values.out || !format) throw new UsageError(USAGE);
  return {
    file: positionals[0],
    out: values.out,
    format,
    width: values.width === undefined ? undefined : whole(values.width, 1, 40000),
    quality: whole(values.quality ?? '92', 1, 100),
  };
}

async function renderScene(
  space: Workspace,
  scene: Scene,
  { width, format, quality, out }: Order,
): Promise<string> {
  const full = framedSize(scene.plate, scene.frame);
  const across = Math.min(full.width, width ?? full.width);
  const size = { width: across, height: Math.max(1, Math.round((across * full.height) / full.width)) };
  const renderer = createServerRenderer(space);
  try {
    const { signal } = new AbortController();
    const photo = await readPhotoFacts(assetPath(space.dataDir, scene.plate.asset));
    const work = { renderer, plates: space.plates, scene, photo, size, signal, onProgress: () => {} };
    const file = await open(out, 'w');
    await writeOutput(file, work, { format, quality }).finally(() => file.close());
  } finally {
    renderer.close();
  }
  return `${out}: ${size.width} x ${size.height}`;
}

async function main(): Promise<void> {
  const order = readOrder(process.argv.slice(2));
  await access(order.file).catch(() => {
    throw new Error(`${order.file} cannot be read. Check its name.`);
  });
  const dataDir = await mkdtemp(join(tmpdir(), 'sundew-render-'));
  try {
    const space = openWorkspace(dataDir);
    const { scene, note } = await takeSceneFile(space, order.file);
    if (note) console.error(note);
    console.log(await renderScene(space, scene, order));
  } finally {
    await rm(dataDir, { recursive: true, force: true });
  }
}

/** Exit codes: 0 done, 1 the input or the disk is at fault, 2 the command line is. */
main().catch((error: unknown) => {
  const { message } = error as Error;
  console.error(message.split('\n')[0]);
  process.exitCode = error instanceof UsageError ? 2 : 1;
});
