import { matteCoverage } from '@/core/matte/matte-coverage';
import { bilinearOver } from '@/core/plane/bilinear-over';
import { boxAround } from '@/core/plane/box';
import type { Plane } from '@/core/plane/plane';
import { wholeRegion, type Region } from '@/core/plane/region';
import type { PlacedBody, PlacedCut } from '@/core/placed/placed-schema';
import type { Placed } from '@/core/scene/schema';
import type { CoveragePicture } from '@/core/matte/coverage-picture';
import { surveySize } from '@/engine/sizes';

/** What a cut leaves of a picture, small, and where that stands in it. */
export interface CutResult {
  coverage: Plane;
  /** Undefined where nothing is left. */
  body: PlacedBody | undefined;
}

type Load = (asset: string) => Promise<CoveragePicture>;

const planeOf = ({ width, height, data }: CoveragePicture): Plane => ({
  ...{ width, height },
  data: Float32Array.from(data, (value) => value / 255),
});

/** Of passes that look at nothing of a picture itself, no plane of it is read. */
const UNREAD = { width: 0, height: 0, r: new Float32Array(), g: new Float32Array(), b: new Float32Array() };

/** What passes leave of a placed picture. */
export async function cutResult(
  { alpha, width, height }: Pick<Placed, 'alpha' | 'width' | 'height'>,
  passes: PlacedCut['passes'],
  load: Load,
): Promise<CutResult> {
  const size = surveySize({ width, height });
  const region = wholeRegion(size.width, size.height);
  const data = new Float32Array(size.width * size.height).fill(1);
  if (passes.length > 0) {
    const found = passes.flatMap((pass) =>
      pass.kind === 'edge' && pass.asset ? [[pass.id, pass.asset] as const] : [],
    );
    const brushed = new Map(
      await Promise.all(found.map(async ([id, asset]) => [id, planeOf(await load(asset))] as const)),
    );
    const inputs = {
      found: { width: 0, height: 0, lines: new Map<string, never>() },
      brushed,
      mattes: new Map(),
    };
    matteCoverage(data, passes, UNREAD, inputs, region);
  }
  if (alpha !== undefined) multiply(data, planeOf(await load(alpha)), region);
  return { coverage: { ...size, data }, body: bodyOf(data, region) };
}

function multiply(data: Float32Array, by: Plane, region: Region): void {
  const factors = new Float32Array(data.length);
  bilinearOver(factors, by, region);
  for (let i = 0; i < data.length; i++) data[i] *= factors[i];
}

function bodyOf(data: Float32Array, { width, height }: Region): PlacedBody | undefined {
  const box = boxAround(width, height, (i) => data[i] >= 0.5);
  return (
    box && {
      ...{ left: box.left / width, right: box.right / width },
      ...{ top: box.top / height, bottom: box.bottom / height },
    }
  );
}
