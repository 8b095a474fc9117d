import { project, type Camera } from '@/core/geometry/camera';
import type { Region } from '@/core/plane/region';
import { NO_CUTOFF, type PointLight } from '@/core/light/point-light';

/** Share of a beam's greatest intensity under which it has ended: what falls beside it is not looked at. */
const BEAM_END = 1e-7;

/** A light as `kernels/point-light.ts` reads it, for a region. */
export function lightFloats(light: PointLight, camera: Camera, region: Region): number[] {
  const { spillCandela, airCandela, radius, facing, even = 0, focus, cutoff = NO_CUTOFF, clear = 0 } = light;
  return [
    ...fromEye(light, camera),
    spillCandela,
    focus === undefined ? airCandela / (4 * Math.PI) : 0,
    radius * radius,
    radius,
    ...(facing ?? [0, 0, 0]),
    facing ? even : 1,
    focus ?? 0,
    cutoff,
    facing ? 1 : 0,
    even > 0 ? 0 : BEAM_END ** (2 / 2 ** (focus ?? 0)),
    clear,
    ...seenAt(light, camera, region),
    0,
    0,
  ];
}

/** Where what is not before the eye is seen: far from everything. */
const NOWHERE = [-1e9, -1e9];

/** The pixel of a region at which a light is seen. */
function seenAt({ place }: PointLight, camera: Camera, region: Region): number[] {
  const at = project(camera, place);
  return at
    ? [at.u * region.fullWidth - region.left - 0.5, at.v * region.fullHeight - region.top - 0.5]
    : NOWHERE;
}

/** A light's place from the eye. */
export const fromEye = ({ place: [x, y, z] }: PointLight, { eyeHeight }: Camera) => [x, y, z - eyeHeight];

/** View rays at a region's first pixel and from pixel to pixel. */
export function raysOf({ corner, across, down }: Camera, region: Region): number[] {
  const u = (region.left + 0.5) / region.fullWidth;
  const v = (region.top + 0.5) / region.fullHeight;
  const axes = [0, 1, 2] as const;
  return [
    ...axes.map((c) => corner[c] + u * across[c] + v * down[c]),
    ...axes.map((c) => across[c] / region.fullWidth),
    ...axes.map((c) => down[c] / region.fullHeight),
  ];
}
