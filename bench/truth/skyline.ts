// Says how much brighter by the day's sky the land is at a skyline than the land beside it.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setNight } from '@/core/scene/commands';
import { runCommand } from '@/core/scene/command';
import { newScene } from '@/core/scene/new-scene';
import { setSky } from '@/core/scene/sky-commands';
import { median } from '@/core/plane/median';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { Scene } from '@/core/scene/schema';
import { previewSize } from '@/engine/sizes';
import { night } from '@/engine/stages/night';
import { plate } from '@/engine/stages/plate';
import { survey, surveyIn } from '@/engine/stages/survey';
import { LUMINANCE, luminance } from '@/core/color/luminance';
import { bilinearRow } from '@/core/plane/bilinear-row';
import type { RgbPlanes } from '@/core/plane/plane';
import { steepen } from '@/core/plane/steepen';
import type { Survey } from '@/core/survey/survey';
import { skyline } from '@/engine/stages/skyline';
import { receiveFromDisk } from '@/server/assets/asset-store';
import { openWorkspace } from '@/server/assets/workspace';
import { createServerRenderer } from '@/server/output/render-service';
import { takePlate } from '@/server/scenes/intake';

/** Rows to both sides of a skyline that are its rim, and those below that are the land beside it. */
const RIM = 3;
const LAND = { from: 6, to: 14 } as const;

const PLATES = ['brickyard-lane', 'ferry-steps', 'picture-house', 'tannery-court'];

const dataDir = await mkdtemp(join(tmpdir(), 'sundew-skyline-'));
const space = openWorkspace(dataDir);
const renderer = createServerRenderer(space);

interface Lit {
  width: number;
  height: number;
  /** What of a place is seen of the land's own light, before a black sky. */
  light: Float32Array;
  land: Float32Array;
}

/** Coverage by land of a region as the survey found it: what is no sky. */
function foundLand(
  out: Float32Array,
  { r, g, b }: RgbPlanes,
  survey: Pick<Survey, 'sky' | 'width' | 'height'>,
  region: Region,
): void {
  const { width, height, sky } = survey;
  const [slope, offset] = [0, 1].map(() => new Float32Array(region.width));
  for (let y = 0, i = 0; y < region.height; y++) {
    bilinearRow(slope, { width, height, data: sky.slope }, region, y);
    bilinearRow(offset, { width, height, data: sky.offset }, region, y);
    for (let x = 0; x < region.width; x++, i++) {
      const light = LUMINANCE[0] * r[i] + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i];
      out[i] = 1 - steepen(slope[x] * Math.cbrt(light) + offset[x]);
    }
  }
}

/** The land's light of a scene: freed of the day's sky, or as the survey alone cuts it out. */
function litLand(scene: Scene, isFreed: boolean): Promise<Lit> {
  const size = previewSize(scene.plate, 1600);
  return renderer.read(async ({ spot, see }) => {
    const at = spot({ scene, region: wholeRegion(size.width, size.height) });
    const { r, g, b } = await see(night(at));
    const land = isFreed ? (await see(skyline(at))).land.slice() : new Float32Array(r.length);
    if (!isFreed) foundLand(land, await see(plate(at)), surveyIn(await see(survey(at))), at.region);
    return { ...size, land, light: land.map((share, i) => share * luminance([r[i], g[i], b[i]])) };
  }, new AbortController().signal);
}

/** The land's light at each rim over that of the land beneath it, where sky goes over to land. */
function rims({ width, height, light, land: own }: Lit, land: Float32Array): number[] {
  const found: number[] = [];
  for (let x = 0; x < width; x++) {
    const at = (y: number) => y * width + x;
    for (let y = RIM; y < height - LAND.to; y++) {
      const meets = land[at(y - 1)] < 0.5 && land[at(y)] >= 0.5;
      if (!meets || land[at(y + LAND.to - 1)] < 0.95) continue;
      let [rim, cover] = [0, 0];
      for (let k = -RIM; k < RIM; k++) {
        rim += light[at(y + k)];
        cover += own[at(y + k)];
      }
      let mean = 0;
      for (let k = LAND.from; k < LAND.to; k++) mean += light[at(y + k)] / (LAND.to - LAND.from);
      if (mean > 0 && cover > 0.2) found.push(rim / cover / mean);
    }
  }
  return found.sort((a, b) => a - b);
}

const tell = (all: number[]) =>
  `${median(all).toFixed(2).padStart(6)} ${all[Math.floor(0.9 * all.length)].toFixed(2).padStart(8)}`;

console.log('The light of land at the skyline over that of the land beside it');
console.log('plate               cut out by the survey      freed of the day');
console.log('                     median   9 of 10        median   9 of 10');
for (const name of PLATES) {
  const received = await receiveFromDisk(dataDir, `demo/plates/${name}.jpg`);
  const size = await takePlate(space, received);
  const bare = newScene(name, { asset: received.hash, width: size.width, height: size.height });
  const dark = runCommand(bare, setNight('Dark', { exposure: -4.5, hold: 0, evenOut: 0 })).scene;
  const freed = await litLand(dark, true);
  const cut = await litLand(runCommand(dark, setSky('Own', { from: 'plate' })).scene, false);
  console.log(name.padEnd(20), tell(rims(cut, freed.land)), '      ', tell(rims(freed, freed.land)));
}
renderer.close();
await rm(dataDir, { recursive: true, force: true });
