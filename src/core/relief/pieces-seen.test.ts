import { expect, it } from 'vitest';
import { createCamera, rayThrough } from '../geometry/camera';
import { meetWall, wallPieces } from '../plan/wall-pieces';
import { piecesSeen } from './pieces-seen';

const [WIDTH, HEIGHT] = [60, 40];
const CAMERA = createCamera({ horizon: { left: 0.45, right: 0.45 }, eyeHeight: 1.6, lens: 28 }, 1.5);

it('tells which piece each pixel shows, not what stands before it nor the sky', () => {
  const foot = (u: number, v: number) => ({ u, v });
  const pieces = wallPieces(CAMERA, [
    { foot: [foot(0, 0.8), foot(0.5, 0.55)], height: 5 },
    { foot: [foot(0.55, 0.55), foot(1, 0.75)], height: 3 },
  ]);
  const met = (i: number) => {
    const at = { u: ((i % WIDTH) + 0.5) / WIDTH, v: (Math.floor(i / WIDTH) + 0.5) / HEIGHT };
    return pieces.map((piece) => meetWall(piece, CAMERA.eyeHeight, rayThrough(CAMERA, at)));
  };
  const isBefore = (i: number) => i % WIDTH === 10;
  const count = WIDTH * HEIGHT;
  const reach = Float32Array.from({ length: count }, (_, i) =>
    isBefore(i) ? 0.5 * Math.min(...met(i), 20) : Math.min(...met(i), 1e4),
  );
  const land = Float32Array.from({ length: count }, (_, i) => (i < WIDTH ? 0 : 1));
  const seen = piecesSeen({ width: WIDTH, height: HEIGHT }, { reach, land }, CAMERA, pieces);
  const expected = Uint16Array.from({ length: count }, (_, i) => {
    const ways = met(i);
    const nearest = Math.min(...ways);
    return isBefore(i) || land[i] === 0 || nearest === Infinity ? 0 : ways.indexOf(nearest) + 1;
  });
  expect(seen).toEqual(expected);
  for (const k of [1, 2]) expect(seen.filter((value) => value === k).length).toBeGreaterThan(100);
});
