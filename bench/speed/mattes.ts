import sharp from 'sharp';
import type { Matte } from '@/core/scene/schema';
import { findEdge, followEdge, refineWidth } from '@/core/matte/refine-edge';
import type { RgbPlanes } from '@/core/plane/plane';
import { wholeRegion } from '@/core/plane/region';
import { receiveBytes } from '@/server/assets/asset-store';
import { takePlate } from '@/server/scenes/intake';
import { newMatte } from '@/state/actions/matte-actions';
import { copied, camera, photo, RUNS, dataDir, never, region, renderer, scene, show, space } from './kit';
import { medianTime, report } from './time';

/** Mattes: found, refined, grown. */
export async function benchMattes(): Promise<void> {
  console.log('\nMattes\n');
  const showMatte = (matte: Matte, at = region) =>
    renderer.frame(
      { scene: { ...scene, mattes: [matte] }, region: at, show: { matte: matte.id, view: 'grey' } },
      never,
      () => {},
    );
  const sky = newMatte(scene, 'sky');
  const skyOf = (asset: string) => ({ ...scene, plate: { asset, ...camera }, mattes: [sky] });
  let skies = 100;
  const skyTook: number[] = [];
  for (let run = 0; run < 3; run++) {
    const file = await receiveBytes(dataDir, Buffer.concat([photo, Buffer.from([++skies])]));
    await takePlate(space, file);
    await show({ ...skyOf(file.hash), mattes: [] });
    const asked = performance.now();
    await renderer.frame(
      { scene: skyOf(file.hash), region, show: { matte: sky.id, view: 'grey' } },
      never,
      () => {},
    );
    skyTook.push(performance.now() - asked);
  }
  report('the sky in one action, in an open photo of 6000 x 4000', skyTook.sort((a, b) => a - b)[1]);
  let grown = 0;
  const outline = {
    ...newMatte(scene, 'outline'),
    passes: [
      {
        id: 'o',
        join: 'add' as const,
        kind: 'outline' as const,
        points: [
          { u: 0.2, v: 0.2 },
          { u: 0.8, v: 0.3 },
          { u: 0.5, v: 0.8 },
        ],
      },
    ],
  };
  report(
    'refine moved to new frame, 1600 x 1067',
    await medianTime(RUNS, () => showMatte({ ...outline, refine: 0.005 + ++grown / 1e4 })),
    copied,
  );
  report(
    'grow and feather moved to new frame',
    await medianTime(RUNS, () => showMatte({ ...outline, feather: 0.004, grow: ++grown / 1e4 })),
    copied,
  );
  const large = { width: 6000, height: 4000 };
  const guide = {
    ...large,
    ...Object.fromEntries(
      (['r', 'g', 'b'] as const).map((c) => [
        c,
        Float32Array.from({ length: 24e6 }, (_, i) => ((i * 7) % 251) / 251),
      ]),
    ),
  } as RgbPlanes;
  const hard = Float32Array.from({ length: 24e6 }, (_, i) => (i % 6000 < 3000 ? 1 : 0));
  const window = 0.006;
  const copyWidth = refineWidth(window, 6000);
  const copySize = { width: copyWidth, height: Math.round((copyWidth * 2) / 3) };
  const count = copySize.width * copySize.height;
  const copyPlanes = {
    ...copySize,
    r: guide.r.slice(0, count),
    g: guide.g.slice(0, count),
    b: guide.b.slice(0, count),
  };
  const lines = {
    r: new Float32Array(count),
    g: new Float32Array(count),
    b: new Float32Array(count),
    offset: new Float32Array(count),
  };
  const refined = new Float32Array(24e6);
  const refining = await medianTime(3, () => {
    findEdge(lines, copyPlanes, hard.subarray(0, count), window);
    followEdge(refined, lines, copySize, guide, wholeRegion(6000, 4000));
  });
  const grey = Buffer.alloc(24e6, 128);
  const blurred = await medianTime(3, () =>
    sharp(grey, { raw: { ...large, channels: 1 } })
      .blur(window * 6000)
      .raw()
      .toBuffer(),
  );
  report('libvips: blur of 24 megapixels over the same radius', blurred);
  report('refine of 24 megapixels, one thread', refining, { to: 'libvips', of: blurred });
}
