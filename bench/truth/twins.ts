import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import sharp from 'sharp';
import { parseScene } from '@/core/scene/parse-scene';
import { KINDS } from '@/core/fixture/kinds';
import type { Fixture, Scene } from '@/core/scene/schema';
import type { Picture } from '@/segment/picture';
import { SegmentService } from '@/segment/segment-service';
import { whenReady, type OpenCv } from '@/segment/opencv';
import { windowClues, windowsIn } from '@/state/actions/windows';
import { sampleOf, twinClues, twinsIn } from '@/state/actions/twins';
import { TRUTH_ROOT } from './truth-files';

/** The fixture that is lit first, by demo scene; its twins are the notes' fixtures of a kind, or all windows. */
const LIT_FIRST = [
  { plate: 'ferry-steps', first: 'lamp-1', twins: 'lantern' },
  { plate: 'ferry-steps', first: 'lamp-2', twins: 'lantern' },
  { plate: 'ferry-steps', first: 'house-4', twins: 'windows' },
  { plate: 'picture-house', first: 'bulb-1', twins: 'globe' },
  { plate: 'tannery-court', first: 'back_ground_0_blind', twins: 'windows' },
] as const;

interface Notes {
  fixtures: { kind: string; centre: [number, number]; in_frame: boolean }[];
  windows: { polygon: [number, number][] }[];
}

/** Finds this near to where a twin is count as it, fractions of the width. */
const NEAR = 0.008;
const WIDTH = 1600;

const { cv } = await whenReady(createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv);
async function twinsOn(scene: Scene, lit: Fixture, picture: Picture) {
  const service = new SegmentService(Promise.resolve({ cv }));
  service.open(picture);
  if (KINDS[lit.kind].findsWindow)
    return windowsIn(scene, lit, await service.windowTwins(windowClues(scene), lit.path));
  return twinsIn(scene, lit, await service.findAlike(sampleOf(scene, lit), twinClues(scene, lit)));
}

console.log('Twins found of one fixture that is lit, on the demo plates\n');
console.log('plate          lit first              there   found   right   precision  recall');
for (const { plate, first, twins } of LIT_FIRST) {
  const demo = JSON.parse(await readFile(`demo/scenes/${plate}.json`, 'utf8')) as {
    scene: { fixtures: { id: string }[] };
  };
  const notes = JSON.parse(await readFile(join(TRUTH_ROOT, plate, 'notes.json'), 'utf8')) as Notes;
  const { data, info } = await sharp(`demo/plates/${plate}.jpg`)
    .resize(WIDTH)
    .raw()
    .toBuffer({ resolveWithObject: true });
  const size = { width: 1800, height: 1200 };
  // Placed pictures are not here: only the fixture that is lit is needed.
  const own = { fixtures: demo.scene.fixtures.filter(({ id }) => id === first), placed: [] };
  const scene = parseScene({ ...demo.scene, ...own, plate: { asset: '0'.repeat(64), ...size } });
  const lit = scene.fixtures.find(({ id }) => id === first) as Fixture;
  const picture = { width: info.width, height: info.height, rgb: new Uint8Array(data) };
  const found = await twinsOn(scene, lit, picture);
  const middle = (polygon: [number, number][]): [number, number] =>
    [0, 1].map((c) => polygon.reduce((sum, point) => sum + point[c], 0) / polygon.length) as [number, number];
  const places =
    twins === 'windows'
      ? notes.windows.map(({ polygon }) => middle(polygon))
      : notes.fixtures.filter(({ kind }) => kind === twins).map(({ centre }) => centre);
  const away = (u: number, v: number, at: Fixture['at']) =>
    Math.hypot(u - at.u, ((v - at.v) * size.height) / size.width);
  const there = places.filter(([u, v]) => u > 0 && u < 1 && v > 0 && v < 1 && away(u, v, lit.at) > NEAR);
  const right = found.filter(({ at }) => there.some(([u, v]) => away(u, v, at) < NEAR)).length;
  const share = (part: number, of: number) => (of === 0 ? '-' : (part / of).toFixed(2));
  console.log(
    [
      plate.padEnd(14),
      first.padEnd(21),
      String(there.length).padStart(6),
      String(found.length).padStart(7),
      String(right).padStart(7),
      share(right, found.length).padStart(11),
      share(right, there.length).padStart(7),
    ].join(' '),
  );
}
process.exit(0);
