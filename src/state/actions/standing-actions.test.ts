import { describe, expect, it } from 'vitest';
import { project } from '@/core/geometry/camera';
import { cameraOf } from '@/core/picture/camera-of';
import { boxMeasures } from '@/core/plan/box-sides';
import type { EdgeStroke } from '@/core/matte/pass';
import { newScene } from '@/core/scene/new-scene';
import type { GuessedThing } from '@/core/layout/guess-things';
import { newThing } from './standing-actions';

const [WIDTH, HEIGHT] = [300, 200];
const scene = newScene('Test', { asset: '0'.repeat(64), width: WIDTH, height: HEIGHT });
const camera = cameraOf(scene);
const [low, high] = [project(camera, [0, 6, 0])!, project(camera, [0, 6, 1.4])!];
const asset = '1'.repeat(64);

/** What faces the eye, 4 m broad and 1.4 m high. */
const side = {
  left: project(camera, [-2, 6, 0])!.u * WIDTH,
  right: project(camera, [2, 6, 0])!.u * WIDTH,
};
const coverage = () =>
  Promise.resolve({
    ...{ width: WIDTH, height: HEIGHT },
    data: Uint8Array.from({ length: WIDTH * HEIGHT }, (_, i) => {
      const [x, y] = [(i % WIDTH) + 0.5, (Math.floor(i / WIDTH) + 0.5) / HEIGHT];
      return x > side.left && x < side.right && y > high.v && y < low.v ? 255 : 0;
    }),
  });
const thing = (is: GuessedThing['is']): GuessedThing => ({
  ...{ is, foot: low, loop: [0.2, 0.4, 0.8, 0.4, 0.5, 0.9] },
  box: { left: 0.3, right: 0.7, top: 0.5, foot: 0.9 },
});

describe('newThing', () => {
  it('is called what it is, and stands in its matte', async () => {
    const { matte, standee } = await newThing(scene, thing('person'), asset, coverage);
    expect([matte.name, standee.name, standee.matte]).toEqual(['Person 1', 'Person 1', matte.id]);
    expect(matte.passes).toMatchObject([{ kind: 'edge', asset }]);
    const [{ strokes }] = matte.passes as { strokes: EdgeStroke[] }[];
    expect(strokes.map(({ act }) => act)).toEqual(['loop', 'take']);
    expect(strokes[1].path).toEqual([0.5, 0.548, 0.5, 0.868].map((at) => expect.closeTo(at, 9) as number));
    // A share of the shorter side: it is 0.4 of the width broad, and 0.4 of the height high.
    expect(strokes[1].size).toBeCloseTo((0.12 * 0.4) / 1.5, 9);
    expect(standee.box).toBeUndefined();
    expect(standee.foot.v).toBeCloseTo(low.v, 6);
  });

  it('is a box as large as it is seen, if it is a car', async () => {
    const { standee } = await newThing(scene, thing('car'), asset, coverage);
    const { left, right, height } = boxMeasures(camera, standee, [])!;
    expect(Math.max(left, right)).toBeCloseTo(4, 0);
    expect(Math.abs(height - 1.4)).toBeLessThan(0.2);
    const nowhere = { width: WIDTH, height: HEIGHT, data: new Uint8Array(WIDTH * HEIGHT) };
    const card = await newThing(scene, thing('car'), asset, () => Promise.resolve(nowhere));
    expect(card.standee.box).toBeUndefined();
  });
});
