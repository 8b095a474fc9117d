import { describe, expect, it } from 'vitest';
import { seeded } from '../fixture/seeded';
import { createCamera, type PlatePoint } from '../geometry/camera';
import { onPlane, planeToPlate, type UprightPlane } from '../geometry/upright-plane';
import { middleOf } from '../plane/middle-of';
import type { Plane } from '../plane/plane';
import type { Facade } from './facades';
import { findWindows } from './find-window';
import { scaleOnPlane, squareView } from './square-view';

const SIZE = { width: 660, height: 440 };
const HORIZON = { left: 0.55, right: 0.56 };
const camera = createCamera({ horizon: HORIZON, eyeHeight: 1.6, lens: 30 }, SIZE.width / SIZE.height);

const wallTurned = (turn: number): UprightPlane => ({
  point: [0, 9, 0],
  normal: [Math.sin(turn), -Math.cos(turn), 0],
});

/** A window on a wall: metres along it and up; panes in columns and rows between bars; its frame. */
const WINDOW = { left: -0.6, right: 0.6, low: 2.2, high: 3.9, bar: 0.03, frame: 0.06, columns: 3, rows: 4 };

/** What a wall of brick with such a window shows at a place of it, codes. */
function shown(along: number, up: number): number {
  const { left, right, low, high, bar, frame, columns, rows } = WINDOW;
  const outside = Math.max(left - along, along - right, low - up, up - high);
  if (outside > frame) {
    const course = Math.floor(up / 0.075);
    const joint = up - 0.075 * course < 0.01 || (along / 0.225 + course / 2) % 1 < 0.04;
    return joint ? 150 : 118 + 8 * Math.sin(37 * course + Math.floor(along / 0.225 + course / 2) * 11);
  }
  if (outside > 0) return 225;
  const near = (value: number, from: number, to: number, parts: number) => {
    const share = ((value - from) / (to - from)) * parts;
    return (Math.abs(share - Math.round(share)) * (to - from)) / parts;
  };
  const isBar =
    near(along, left, right, columns) < bar / 2 || near(up, low, high, rows) < bar / 2
      ? outside < -bar
      : false;
  return isBar ? 220 : 40;
}

/** The wall as the camera sees it, each pixel the mean of four, with grain. */
function plateOf(wall: UprightPlane, show = shown): Plane {
  const { width, height } = SIZE;
  const random = seeded(3);
  const data = Float32Array.from({ length: width * height }, (_, i) => {
    let sum = 0;
    for (let k = 0; k < 4; k++) {
      const at = {
        u: ((i % width) + (k % 2) / 2 + 1 / 4) / width,
        v: (Math.floor(i / width) + Math.floor(k / 2) / 2 + 1 / 4) / height,
      };
      const [x, y, z] = onPlane(camera, wall, at);
      sum += show((x - wall.point[0]) * -wall.normal[1] + (y - wall.point[1]) * wall.normal[0], z);
    }
    return sum / 4 + 4 * (random() - 0.5);
  });
  return { width, height, data };
}

const cornersOn = (wall: UprightPlane): PlatePoint[] => {
  const at = planeToPlate(camera, wall);
  const { left, right, low, high } = WINDOW;
  return [at(left, high)!, at(right, high)!, at(right, low)!, at(left, low)!];
};

/** How far the worst corner is off, pixels. */
const worst = (found: readonly PlatePoint[], true_: readonly PlatePoint[]) =>
  Math.max(
    ...found.map((at, i) => Math.hypot((at.u - true_[i].u) * SIZE.width, (at.v - true_[i].v) * SIZE.height)),
  );

const facade = (wall: UprightPlane, known: boolean): Facade => ({ ...wall, known });

describe('findWindows', () => {
  it.each([0, 0.5, -0.8])('finds the glass within bars and frame on a wall turned by %f', (turn) => {
    const wall = wallTurned(turn);
    const corners = cornersOn(wall);
    const middle = middleOf(corners);
    const plate = plateOf(wall);
    for (const [du, dv] of [
      [0, 0],
      [0.012, 0.02],
      [-0.01, -0.03],
    ]) {
      const [found] = findWindows(plate, camera, [facade(wall, true)], {
        u: middle.u + du,
        v: middle.v + dv,
      });
      expect(worst(found, corners)).toBeLessThan(3);
    }
  });

  it('tells by the edges how a wall faces of which nothing is said', () => {
    const wall = wallTurned(0.6);
    const corners = cornersOn(wall);
    const tried = [-0.6, 0, 0.6].map((turn) => facade(wallTurned(turn), false));
    const [found] = findWindows(plateOf(wall), camera, tried, middleOf(corners));
    expect(worst(found, corners)).toBeLessThan(4);
  });

  it('says nothing on bare brick, on what is plain, and in noise', () => {
    const wall = wallTurned(0.3);
    const at = middleOf(cornersOn(wall));
    const bare = plateOf(wall, (along, up) => shown(along + 40, up));
    const plain = plateOf(wall, () => 90);
    const random = seeded(8);
    const noise = plateOf(wall, () => 90 + 300 * (random() - 0.5));
    for (const plate of [bare, plain, noise]) {
      const tried = [facade(wall, true), facade(wallTurned(0), false)];
      expect(findWindows(plate, camera, tried, at)).toEqual([]);
    }
  });

  it('bears a click at the plate\u2019s edge, and planes that are seen from their edge or lie behind the eye', () => {
    const plate = plateOf(wallTurned(0));
    const walls: UprightPlane[] = [
      { point: [3, 5, 0], normal: [-1, 0, 0] },
      { point: [0, 5, 0], normal: [1, 0, 0] },
      { point: [0, -4, 0], normal: [0, -1, 0] },
      wallTurned(0),
    ];
    for (const at of [
      { u: 0, v: 0 },
      { u: 1, v: 1 },
      { u: 0.5, v: 0.999 },
    ]) {
      for (const wall of walls) {
        const found = findWindows(plate, camera, [facade(wall, true)], at);
        for (const corner of found.flat()) expect(Number.isFinite(corner.u + corner.v)).toBe(true);
      }
    }
  });
});

describe('squareView', () => {
  it('shows level edges of a turned wall level, and at the plate\u2019s own size', () => {
    const wall = wallTurned(0.7);
    const at = middleOf(cornersOn(wall));
    const scale = scaleOnPlane(SIZE, camera, wall, at)!;
    const step = plateOf(wall, (_, up) => (up > 3 ? 200 : 50));
    const view = squareView(step, camera, wall, at, scale, { left: 60, right: 60, above: 60, below: 60 });
    const edge = (x: number) => {
      let y = 0;
      while (y < view.height && view.data[y * view.width + x] > 125) y++;
      return y;
    };
    const rows = [2, 40, 80, 118].map(edge);
    expect(Math.max(...rows) - Math.min(...rows)).toBeLessThanOrEqual(1);
    const [one, next] = [view.toPlate(60, 60), view.toPlate(60, 61)];
    expect((next.v - one.v) * SIZE.height).toBeCloseTo(1, 1);
    expect(one.u).toBeCloseTo(at.u, 9);
  });
});
