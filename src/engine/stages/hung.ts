import { LUMINANCE } from '@/core/color/luminance';
import { hangLamp, type UsualLamp } from '@/core/layout/hang-lamp';
import type { PlatePoint } from '@/core/geometry/camera';
import { cameraOf } from '@/core/picture/camera-of';
import { wallPieces } from '@/core/plan/wall-pieces';
import type { RgbPlanes } from '@/core/plane/plane';
import { smallOf } from '../graph/spot';
import { stage } from '../graph/stage';
import { plate } from './plate';
import { landOf } from './land';
import { creaseRegion, relief } from './relief';

/** A lamp that was clicked: where, and what is usual of its kind. */
export interface ClickedLamp {
  at: PlatePoint;
  usual: UsualLamp;
}

/** What a lamp's place comes to: whether there is one, its drop, its radius or 0, and its foot. */
export const HUNG = { is: 0, u: 1, v: 2, radius: 3, footU: 4, footV: 5, count: 6 } as const;

/** The tones of a plate about as the eye sees them, 0 to 255. */
const tonesOf = ({ r, g, b }: RgbPlanes): Float32Array =>
  r.map(
    (red, i) => 255 * Math.sqrt(Math.min(1, LUMINANCE[0] * red + LUMINANCE[1] * g[i] + LUMINANCE[2] * b[i])),
  );

/** Where a lamp hangs that was clicked, by what the plate shows of what carries it. */
export const hung = stage({
  name: 'hung',
  part: 'the ground plan',
  region: creaseRegion,
  settings: (at, lamp: ClickedLamp) => ({ ...landOf(at), lamp }),
  inputs: (at) => ({ plate: plate(at), relief: relief(smallOf(at)) }),
  planes: () => ({ hung: HUNG.count }),
  pace: 'heavy',
  whole: true,
  run(out, inputs, { prepared: { plan, plate: shape, lamp } }) {
    const { width, height } = inputs.plate;
    const land = inputs.relief;
    const isGround = (u: number, v: number) => {
      const [x, y] = [Math.floor(u * land.width), Math.floor(v * land.height)];
      return x >= 0 && y >= 0 && x < land.width && y < land.height && land.normalZ[y * land.width + x] > 0.5;
    };
    const camera = cameraOf({ plan, plate: shape });
    const tones = { width, height, data: tonesOf(inputs.plate) };
    const carriers = { walls: wallPieces(camera, plan.walls), decks: plan.decks };
    const told = hangLamp(tones, camera, carriers, lamp.usual, lamp.at, isGround);
    out.hung.fill(0);
    if (told) out.hung.set([1, told.at.u, told.at.v, told.radius ?? 0, told.foot.u, told.foot.v]);
  },
});
