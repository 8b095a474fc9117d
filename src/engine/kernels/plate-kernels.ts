import type { decodeCodes } from '@/core/color/decode-codes';
import { levelOf, type evenOut, type levelling } from '@/core/day/even-out';
import type { followEdge } from '@/core/matte/refine-edge';
import { placeDab, type LayDabs } from '@/core/matte/paint-coverage';
import type { Plane } from '@/core/plane/plane';
import type { Region } from '@/core/plane/region';
import { channels, LIGHTS, type Bound } from './bound';

/** Kernels of the plate and its mattes. */
export interface PlateKernels {
  /** As that of the core. */
  decodeCodes: typeof decodeCodes;
  /** As `addEnlarged` of the core. */
  addEnlarged: (out: Float32Array, small: Plane, by: Float32Array, region: Region) => void;
  /** As `layDabs` of the core. */
  layDabs: LayDabs;
  /** As that of the core. */
  followEdge: typeof followEdge;
  /** As those of the core. */
  levelling: typeof levelling;
  evenOut: typeof evenOut;
}

/** Says that a small picture is to be added. */
const ADDS = -1;

export function plateKernels({
  exports,
  memory,
  scratch,
  room,
  writePlanes,
  writeSmalls,
  enlarge,
}: Bound): PlateKernels {
  const lights = new Float32Array(memory.buffer, scratch + LIGHTS, 65536);
  let held: Float32Array | undefined;
  return {
    decodeCodes({ r, g, b }, codes, decoded, first, count) {
      if (held !== decoded) lights.set(decoded);
      held = decoded;
      const at = codes.byteOffset + 6 * first;
      exports.lightOfCodes(r.byteOffset, g.byteOffset, b.byteOffset, at, lights.byteOffset, count);
    },
    addEnlarged: (out, small, by, region) => enlarge(out, by, small, ADDS, region),
    layDabs(out, dabs, soft, region, erase = false) {
      const { width, height } = region;
      for (const dab of dabs) {
        const { x, y, reach, inner, share } = placeDab(dab, soft, region);
        const [left, right] = [Math.max(0, Math.ceil(x - reach)), Math.min(width - 1, Math.floor(x + reach))];
        const [top, bottom] = [
          Math.max(0, Math.ceil(y - reach)),
          Math.min(height - 1, Math.floor(y + reach)),
        ];
        const box = [left, right, top, bottom];
        exports.layDab(out.byteOffset, width, ...box, x, y, reach, inner, share, erase ? 0 : 1);
      }
    },
    followEdge(out, lines, size, plate, region) {
      const smalls = [lines.r, lines.g, lines.b, lines.offset].map((data) => ({ ...size, data }));
      const planes = writePlanes([out.byteOffset, ...channels(plate)]);
      exports.followEdge(planes, writeSmalls(smalls, region), room, region.width, region.height);
    },
    levelling(out, plate, { width, height, line }, sky, region, medianLuminance) {
      const smalls = [line.slope, line.offset, sky.slope, sky.offset].map((data) => ({
        width,
        height,
        data,
      }));
      exports.levelling(
        ...[writePlanes([out.byteOffset, ...channels(plate)]), writeSmalls(smalls, region)],
        ...[levelOf(medianLuminance), room, region.width, region.height],
      );
    },
    evenOut(out, plate, shift, amount) {
      const planes = writePlanes([...channels(out), ...channels(plate), shift.byteOffset]);
      exports.evenOut(planes, amount * Math.LN2, shift.length);
    },
  };
}
