import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { Readable } from 'node:stream';
import { parseArgs } from 'node:util';
import { keepFile, receiveFile } from '@/server/asset-store';
import { AppError } from '@/server/app-error';
import { inspectPlate } from '@/server/inspect-plate';
import { createPlateReader } from '@/server/plate-codes';
import { encodePicture, renderRgb, type OutputFormat } from '@/server/render-picture';
import { createServerRenderer } from '@/server/render-service';
import { readSceneFile } from '@/server/scene-file';

const USAGE = 'Usage: npm run render -- scene.sundew --out night.png [--width N] [--quality N]';

const FORMATS: Record<string, OutputFormat> = { '.jpg': 'jpeg', '.jpeg': 'jpeg', '.png': 'png' };

async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      width: { type: 'string' },
      quality: { type: 'string', default: '92' },
    },
  });
  const format = FORMATS[extname(values.out ?? '').toLowerCase()];
  if (positionals.length !== 1 || !values.out || !format) throw new AppError(400, 'usage', USAGE);
  const { scene, plate } = readSceneFile(await readFile(positionals[0]));
  const dataDir = await mkdtemp(join(tmpdir(), 'sundew-render-'));
  try {
    const received = await receiveFile(dataDir, Readable.from([plate]), Number.MAX_SAFE_INTEGER);
    const facts = await inspectPlate(received.path, received.bytes);
    await keepFile(dataDir, received);
    const width = Math.min(facts.width, Number(values.width ?? facts.width));
    if (!Number.isInteger(width) || width < 1) throw new AppError(400, 'usage', USAGE);
    const size = { width, height: Math.max(1, Math.round((width * facts.height) / facts.width)) };
    const document = { ...scene, plate: { asset: received.hash, width: facts.width, height: facts.height } };
    const renderer = createServerRenderer(createPlateReader(dataDir));
    const rgb = await renderRgb(renderer, document, size, new AbortController().signal);
    renderer.close();
    const data = await encodePicture(rgb, size, { format, quality: Number(values.quality) }).toBuffer();
    await writeFile(values.out, data);
    console.log(`${values.out}: ${size.width} x ${size.height}`);
  } finally {
    await rm(dataDir, { recursive: true, force: true });
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof AppError ? error.message : error);
  process.exitCode = 1;
});
