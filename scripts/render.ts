import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { framedSize } from '@/core/frame/frame';
import { keepFile, receiveBytes } from '@/server/asset-store';
import { AppError } from '@/server/app-error';
import { openPlate } from '@/server/open-plate';
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
  const { scene, plate, lut } = readSceneFile(await readFile(positionals[0]));
  const dataDir = await mkdtemp(join(tmpdir(), 'sundew-render-'));
  try {
    const receive = (part: Uint8Array) => receiveBytes(dataDir, part);
    if (lut) await keepFile(dataDir, await receive(lut));
    const received = await receive(plate);
    const opened = await openPlate(received.path, received.bytes);
    await keepFile(dataDir, received);
    const plates = createPlateReader(dataDir);
    await plates.prime(received.hash, opened);
    const { width: plateWidth, height: plateHeight } = opened.facts;
    const document = { ...scene, plate: { asset: received.hash, width: plateWidth, height: plateHeight } };
    const whole = framedSize(document.plate, document.frame);
    const width = Math.min(whole.width, Number(values.width ?? whole.width));
    if (!Number.isInteger(width) || width < 1) throw new AppError(400, 'usage', USAGE);
    const size = { width, height: Math.max(1, Math.round((width * whole.height) / whole.width)) };
    const renderer = createServerRenderer({ dataDir, plates });
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
