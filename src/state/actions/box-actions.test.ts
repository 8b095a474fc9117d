import { describe, expect, it } from 'vitest';
import { project, type PlatePoint } from '@/core/geometry/camera';
import { outlineRow } from '@/core/geometry/outline-row';
import { cameraOf } from '@/core/picture/camera-of';
import { boxMeasures } from '@/core/plan/box-sides';
import { wholeRegion } from '@/core/plane/region';
import { newScene, PLAIN_FINISH } from '@/core/scene/new-scene';
import { boxed, footMoved } from './box-actions';
import { guessedWall } from './plan-actions';

const [WIDTH, HEIGHT] = [300, 200];
const bare = newScene('Test', { asset: '0'.repeat(64), width: WIDTH, height: HEIGHT });
const camera = cameraOf(bare);
const seen = (x: number, y: number, z: number): PlatePoint => project(camera, [x, y, z])!;
const wall = guessedWall(bare, { foot: [seen(-6, 6, 0), seen(2, 14, 0)], rise: 6 / 1.6 });
const scene = { ...bare, plan: { ...bare.plan, walls: [wall] } };
const FORM = { roundness: 0.5, crease: 0, ...PLAIN_FINISH };

/** A block as its matte shows it: the outline around all of its corners, from a place along the wall's direction. */
function blockOf(x: number, y: number, along: number, across: number, height: number) {
  const turn = Math.PI / 4;
  const at = (a: number, b: number, z: number) =>
    seen(x + a * Math.cos(turn) + b * Math.sin(turn), y + a * Math.sin(turn) - b * Math.cos(turn), z);
  const faces = [
    [at(0, 0, 0), at(along, 0, 0), at(along, 0, height), at(0, 0, height)],
    [at(0, across, 0), at(along, across, 0), at(along, across, height), at(0, across, height)],
    [at(0, 0, 0), at(0, across, 0), at(0, across, height), at(0, 0, height)],
    [at(0, 0, height), at(along, 0, height), at(along, across, height), at(0, across, height)],
  ];
  const data = new Uint8Array(WIDTH * HEIGHT);
  const row = new Float32Array(WIDTH);
  for (const face of faces)
    for (let v = 0; v < HEIGHT; v++) {
      outlineRow(row, face, wholeRegion(WIDTH, HEIGHT), v);
      row.forEach((share, u) => {
        if (share > 0.5) data[v * WIDTH + u] = 255;
      });
    }
  const standee = { id: 's', name: 'Thing', matte: 'm', foot: at(0, across, 0), ...FORM };
  return { standee, coverage: { width: WIDTH, height: HEIGHT, data } };
}

describe('boxed', () => {
  it('turns a car as the nearest wall is, as long and broad as it is', () => {
    const { standee, coverage } = blockOf(-0.5, 6, 4, 1.8, 1.4);
    const found = boxMeasures(camera, boxed(scene, standee, coverage)!, [])!;
    expect(found.turn).toBeCloseTo(45, 0);
    const [short, long] = [found.left, found.right].sort((p, q) => p - q);
    expect(Math.abs(short - 1.8)).toBeLessThan(0.4);
    expect(Math.abs(long - 4)).toBeLessThan(1);
    expect(Math.abs(found.height - 1.4)).toBeLessThan(0.15);
  });
});

describe('boxed where little is told', () => {
  it('fits the turn where no wall was drawn, and says nothing of what covers nothing', () => {
    const { standee, coverage } = blockOf(-0.5, 6, 4, 1.8, 1.4);
    expect(boxed(bare, standee, coverage)).toBeDefined();
    const none = { ...coverage, data: new Uint8Array(WIDTH * HEIGHT) };
    expect(boxed(scene, standee, none)).toBeUndefined();
  });
});

describe('footMoved', () => {
  it('takes a box along, and a card alone', () => {
    const { standee, coverage } = blockOf(-0.5, 6, 4, 1.8, 1.4);
    const stood = { ...standee, ...boxed(scene, standee, coverage)! };
    const plan = { ...scene.plan, standees: [stood] };
    const to = seen(2, 8, 0);
    const moved = footMoved({ ...scene, plan }, 's', to);
    const [before, after] = [stood, { ...stood, ...moved }].map((one) => boxMeasures(camera, one, [])!);
    for (const key of ['turn', 'left', 'right', 'height'] as const)
      expect(after[key]).toBeCloseTo(before[key], 2);
    expect(footMoved({ ...scene, plan: { ...plan, standees: [standee] } }, 's', to)).toEqual({ foot: to });
  });
});
