import type { Vec3 } from '../geometry/vec3';
import type { Gloss } from './surfaces';

/** The normal of a gloss, and the ways along it that are seen as right and up, world axes, of unit length. */
export interface GlossFrame {
  normal: Vec3;
  right: Vec3;
  up: Vec3;
}

const RADIANS = Math.PI / 180;

/** How a gloss lies by its turn and its lean. */
export function glossFrame({ turn, lean }: Pick<Gloss, 'turn' | 'lean'>): GlossFrame {
  const [aside, ahead] = [Math.sin(turn * RADIANS), Math.cos(turn * RADIANS)];
  const [back, upright] = [Math.sin(lean * RADIANS), Math.cos(lean * RADIANS)];
  return {
    normal: [aside * upright, -ahead * upright, back],
    right: [ahead, aside, 0],
    up: [-aside * back, ahead * back, upright],
  };
}
