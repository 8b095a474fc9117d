import sharp from 'sharp';
import { FIRST_SWITCHING, readySwitching, switchedAt } from '@/core/output/switching';
import { outputSize } from '@/core/output/output-formats';
import { createEstimator } from '@/server/output/estimate-output';
import { encodePicture } from '@/server/output/encode-picture';
import { renderFrames } from '@/server/output/render-frames';
import { renderRgb } from '@/server/output/render-picture';
import { fullDesk, height, never, renderer, scene, width } from './kit';
import { medianTime, report } from './time';

/** The lights coming on, how large an output will be, and what other colours cost. */
export async function benchSwitching(): Promise<void> {
  const switching = { ...FIRST_SWITCHING, seconds: 2 };
  const size = outputSize({ width, height }, switching.long);
  const desk = fullDesk(scene.plate);
  const ready = readySwitching(desk, switching);
  const { frames } = ready;
  const plain = { size, frames, at: (k: number) => switchedAt(ready, k) };
  const one = await medianTime(3, () => renderRgb(renderer, desk, size, never));
  const all = await medianTime(1, () => renderFrames(renderer, plain, never, () => undefined));
  const rgb = await renderFrames(renderer, plain, never, () => undefined);
  const raw = {
    width: size.width,
    height: size.height * frames,
    channels: 3,
    pageHeight: size.height,
  } as const;
  const webp = await medianTime(1, () =>
    sharp(rgb, { raw, limitInputPixels: false }).webp({ quality: 85, effort: 3 }).toBuffer(),
  );
  console.log(
    `\nSwitching on, ${frames} pictures of ${size.width} x ${size.height}, 12 circuits, 60 fixtures\n`,
  );
  report('libvips: encoding them alone', webp);
  report('one picture, again', one);
  report('all pictures', all, { to: 'libvips', of: webp });

  const estimator = createEstimator(renderer);
  let revision = 0;
  const choice = { format: 'jpeg', quality: 92 } as const;
  const open = () => ({ id: 'bench', scene, revision: ++revision, log: [] });
  const told = await medianTime(3, () => estimator.bytes(open(), choice, never));
  const codes = new Uint16Array(3 * width * height).fill(20_000);
  const srgb = await medianTime(3, () =>
    encodePicture(codes, { width, height }, { format: 'tiff', quality: 90 }),
  );
  const p3 = await medianTime(3, () =>
    encodePicture(codes.slice(), { width, height }, { format: 'tiff', quality: 90, colours: 'p3' }),
  );
  console.log('\nBefore and around an output\n');
  report('how large it will be, told anew', told);
  report('TIFF of 16 bits, sRGB', srgb);
  report('the same in Display P3', p3, { to: 'sRGB', of: srgb });
}
