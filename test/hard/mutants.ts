import sharp from 'sharp';
import { zipSync } from 'fflate';
import { SCENE_VERSION } from '@/core/scene/schema';
import type { OwnServer } from '../../e2e/support/server';
import { flatDng } from '../dng';
import { COLORANTS, matrixProfile, pngWithProfile } from '../icc';
import { pictureBytes } from '../workspace';
import { ask, copyScene, dimTo, openScene, type Answer } from './client';
import type { Figures } from './figures';
import { forgetPeak, peakMemory } from './memory';
import { mutatedBytes, mutatedValue } from './mutate';
import type { Random } from './random';

/** Longest answer to a small input, milliseconds: more is a hang. */
const HANG = 5000;

/** A request that is right, to be made wrong. */
interface Sound {
  path: string;
  body: Uint8Array | object;
}

async function soundRequests(url: string): Promise<Sound[]> {
  const id = await copyScene(url, 'ferry-steps');
  const { scene } = await openScene(url, id);
  const png = await pictureBytes(96, 80, 'png');
  const grey = await sharp(png).toColourspace('b-w').png().toBuffer();
  const cube = [
    'LUT_3D_SIZE 2',
    ...Array.from({ length: 8 }, (_, i) => `${i & 1} ${(i >> 1) & 1} ${i >> 2}`),
  ];
  const wide = await pngWithProfile(png, matrixProfile('wide red', COLORANTS['wide red'], 2.2));
  const file = zipSync({ 'scene.json': Buffer.from(JSON.stringify(scene)), plate: png });
  const raw = flatDng(100, 80, () => [0.4, 0.3, 0.2]);
  const tiff = await sharp(png).tiff({ compression: 'deflate' }).toBuffer();
  const photos = [await pictureBytes(), png, await pictureBytes(96, 80, 'webp'), wide, file, raw, tiff];
  const scenePath = `/api/scenes/${id}`;
  return [
    ...photos.map((body) => ({ path: '/api/scenes?name=x', body })),
    { path: `${scenePath}/coverages`, body: grey },
    { path: `${scenePath}/luts`, body: Buffer.from(cube.join('\n')) },
    { path: `${scenePath}/revisions`, body: { version: SCENE_VERSION, base: 0, entries: [dimTo(-1)] } },
    { path: `${scenePath}/copy`, body: { scene } },
    { path: `${scenePath}/moments`, body: { name: 'x', scene } },
    { path: `${scenePath}/outputs`, body: { format: 'jpeg', quality: 60 } },
    { path: '/api/nocturnes', body: { name: 'x', night: scene.night } },
    {
      path: '/api/nocturnes/file',
      body: { format: 'sundew-nocturne', version: SCENE_VERSION, name: 'x', night: scene.night },
    },
  ];
}

function send(url: string, { path, body }: Sound, random: Random): Promise<Answer> {
  if (body instanceof Uint8Array) {
    return ask(`${url}${path}`, { method: 'POST', body: new Uint8Array(mutatedBytes(body, random)) });
  }
  const text = JSON.stringify(mutatedValue(body, random)) ?? 'undefined';
  const broken =
    random.below(5) === 0 ? Buffer.from(mutatedBytes(Buffer.from(text), random)).toString() : text;
  const headers = { 'content-type': 'application/json' };
  return ask(`${url}${path}`, { method: 'POST', headers, body: broken });
}

/** Sends requests that are wrong in some way, and counts what a server makes of them. */
export async function mutantTest(
  server: OwnServer,
  count: number,
  random: Random,
  figures: Figures,
): Promise<void> {
  await server.start();
  const sound = await soundRequests(server.url);
  await forgetPeak(server.pid());
  let [refused, taken, faults, hangs, silent] = [0, 0, 0, 0, 0];
  for (let n = 0; n < count; n++) {
    const one = random.pick(sound);
    const { status, milliseconds, text } = await send(server.url, one, random);
    if (status === 0) silent++;
    else if (status >= 500) {
      faults++;
      figures.note(`mutant ${n} at ${one.path}: ${text.slice(0, 60)}`, status);
    } else if (status >= 400) refused++;
    else taken++;
    if (milliseconds > HANG) hangs++;
  }
  figures.note('mutated inputs', count);
  figures.note('refused with a reason, taken', `${refused}, ${taken}`);
  figures.none('answered with a fault of the server (5xx)', faults);
  figures.none('not answered', silent);
  figures.none(`answered after more than ${HANG / 1000} s`, hangs);
  figures.note('peak memory of the server, MiB', Math.round(await peakMemory(server.pid())));
  await server.kill();
}
