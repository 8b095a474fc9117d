import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createCamera, project, rayThrough, type PlatePoint } from '../geometry/camera';
import { dot, type Vec3 } from '../geometry/vec3';
import { addPointSpill } from '../light/add-point-spill';
import { SOFT_LEVELS, softenCoverage } from '../light/soft-coverage';
import { boundsOf, occlude } from '../light/occlusion';
import type { PointLight } from '../light/point-light';
import { wholeRegion } from '../plane/region';
import { layBox, readyBox } from '../relief/rasterize-box';
import { RELIEF_PLANES, type Relief } from '../relief/relief-planes';
import { straightPiece } from './wall-pieces';
import { boxPiece, boxShades, type BoxPiece } from './box-piece';
import { boxAt, boxMeasures, cornerHeight, draggedSide, sidesSeen, along } from './box-sides';
import { fitBox } from './fit-box';
import { DULL } from './surfaces';

const [WIDTH, HEIGHT] = [240, 160];
const camera = createCamera(
  { horizon: { left: 0.45, right: 0.45 }, eyeHeight: 2.4, lens: 30 },
  WIDTH / HEIGHT,
);
const footAt = (x: number, y: number) => project(camera, [x, y, 0])!;

/** A box of some metres before the camera. */
const standing = (x: number, y: number, turn: number, left: number, right: number, height: number) => {
  const foot = footAt(x, y);
  return { foot, box: boxAt(camera, foot, [], { turn, left, right, height })! };
};

/** How far along a ray a box is first met, by its planes one after the other; undefined beside it. */
function marched(
  ray: Vec3,
  { x, y, z, left, right, height }: BoxPiece,
): { reach: number; normal: Vec3 } | undefined {
  const unit = ([wx, wy]: readonly [number, number]) =>
    [wx / Math.hypot(wx, wy), wy / Math.hypot(wx, wy), 0] as Vec3;
  const [l, r, up] = [unit(left), unit(right), [0, 0, 1] as Vec3];
  const spans = [Math.hypot(...left), Math.hypot(...right), height];
  const from: Vec3 = [x, y, z];
  const eye: Vec3 = [0, 0, camera.eyeHeight];
  let met: { reach: number; normal: Vec3 } | undefined;
  [l, r, up].forEach((axis, k) => {
    for (const far of [0, spans[k]]) {
      const at = dot(from, axis) + far;
      const reach = (at - dot(eye, axis)) / dot(ray, axis);
      if (!(reach > 0) || (met && reach >= met.reach)) continue;
      const place = ray.map((c, i) => eye[i] + c * reach) as unknown as Vec3;
      const inside = [l, r, up].every((other, m) => {
        const share = dot(place, other) - dot(from, other);
        return m === k || (share >= -1e-9 && share <= spans[m] + 1e-9);
      });
      if (inside) met = { reach, normal: axis.map((c) => (far === 0 ? -c : c)) as unknown as Vec3 };
    }
  });
  return met;
}

const emptyRelief = () =>
  Object.fromEntries(
    RELIEF_PLANES.map((name) => [name, new Float32Array(WIDTH * HEIGHT)]),
  ) as unknown as Relief;

/** Lays a box wherever its rays meet it. Returns its coverage. */
function lay(out: Relief, piece: BoxPiece, roundness: number): Uint8Array {
  const ready = readyBox(piece, camera.eyeHeight);
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (let y = 0, i = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++, i++) {
      const ray = rayThrough(camera, { u: (x + 0.5) / WIDTH, v: (y + 0.5) / HEIGHT });
      if (!marched(ray, piece)) continue;
      data[i] = 255;
      layBox(out, i, [ray[0], ray[1], ray[2]], ready, Infinity, roundness);
      out.land[i] = 1;
    }
  return data;
}

describe('a box before the eye', () => {
  const boxes = fc.record({
    x: fc.double({ min: -2, max: 2, noNaN: true }),
    y: fc.double({ min: 5, max: 12, noNaN: true }),
    turn: fc.double({ min: 0, max: 89, noNaN: true }),
    left: fc.double({ min: 0.5, max: 4, noNaN: true }),
    right: fc.double({ min: 0.5, max: 4, noNaN: true }),
    height: fc.double({ min: 0.3, max: 2, noNaN: true }),
  });

  it('lies where a ray first meets one of its faces, and looks the way that face does', () => {
    fc.assert(
      fc.property(boxes, ({ x, y, turn, left, right, height }) => {
        const piece = boxPiece(camera, standing(x, y, turn, left, right, height), [])!;
        const [ready, out] = [readyBox(piece, camera.eyeHeight), emptyRelief()];
        for (let u = 0.0173; u < 1; u += 0.04)
          for (let v = 0.02; v < 1; v += 0.04) {
            const ray = rayThrough(camera, { u, v });
            const met = marched(ray, piece);
            if (!met) continue;
            layBox(out, 0, [ray[0], ray[1], ray[2]], ready, Infinity, 0);
            // From its edge a lid shows its rim: that lies no deeper than the box.
            if (met.normal[2] > 0 && -ray[2] < 0.051 * ray[1]) continue;
            expect(out.reach[0] / met.reach).toBeCloseTo(1, 4);
            const normal = [out.normalX[0], out.normalY[0], out.normalZ[0]] as const;
            expect(dot(normal, met.normal)).toBeGreaterThan(0.999);
          }
      }),
      { numRuns: 60 },
    );
  });

  it('has normals of unit length, toward the eye, however round it is', () => {
    fc.assert(
      fc.property(boxes, fc.double({ min: 0, max: 1, noNaN: true }), (of, roundness) => {
        const piece = boxPiece(camera, standing(of.x, of.y, of.turn, of.left, of.right, of.height), [])!;
        const out = emptyRelief();
        lay(out, piece, roundness).forEach((covered, i) => {
          if (covered) expect(Math.hypot(out.normalX[i], out.normalY[i], out.normalZ[i])).toBeCloseTo(1, 5);
        });
      }),
      { numRuns: 10 },
    );
  });

  it('has no fold where it is round: normals run on from face to face, and what is not round has its edges', () => {
    const piece = boxPiece(camera, standing(-0.5, 7, 40, 2.5, 2, 1.2), [])!;
    const ready = readyBox(piece, camera.eyeHeight);
    const steepest = (roundness: number) => {
      const out = emptyRelief();
      let least = 1;
      let before: Vec3 | undefined;
      for (let u = 0; u < 1; u += 0.0005) {
        const ray = rayThrough(camera, { u, v: 0.62 });
        if (!marched(ray, piece)) {
          before = undefined;
          continue;
        }
        layBox(out, 0, [ray[0], ray[1], ray[2]], ready, Infinity, roundness);
        const normal: Vec3 = [out.normalX[0], out.normalY[0], out.normalZ[0]];
        if (before) least = Math.min(least, dot(before, normal));
        before = normal;
      }
      return least;
    };
    expect(steepest(0)).toBeLessThan(0.1);
    for (const roundness of [0.3, 0.5, 1]) expect(steepest(roundness)).toBeGreaterThan(0.998);
  });

  it('goes on as its sides do where its matte reaches beyond it, no farther than its far corner and no wall', () => {
    const piece = boxPiece(camera, standing(0, 8, 30, 2, 3, 1.5), [])!;
    const [ready, out] = [readyBox(piece, camera.eyeHeight), emptyRelief()];
    const ray = rayThrough(camera, { u: 0.5, v: 0.1 });
    layBox(out, 0, [ray[0], ray[1], ray[2]], ready, Infinity, 0);
    expect(out.reach[0] * ray[1]).toBeLessThanOrEqual(ready.to);
    expect(out.normalZ[0]).toBe(0);
    layBox(out, 0, [ray[0], ray[1], ray[2]], ready, 8.5 / ray[1], 0);
    expect(out.reach[0] * ray[1]).toBeLessThanOrEqual(8.5 + 1e-5);
  });

  it('takes light by the cosine of each face', () => {
    const piece = boxPiece(camera, standing(0, 7, 35, 2, 2, 1), [])!;
    const out = emptyRelief();
    const covered = lay(out, piece, 0);
    const light: PointLight = { place: [-3, 4, 3], spillCandela: 100, airCandela: 0, radius: 1e-4 };
    const spill = new Float32Array(WIDTH * HEIGHT);
    addPointSpill(spill, out, camera, wholeRegion(WIDTH, HEIGHT), light);
    const faces = new Set<number>();
    covered.forEach((is, i) => {
      if (!is) return;
      const [u, v] = [((i % WIDTH) + 0.5) / WIDTH, (Math.floor(i / WIDTH) + 0.5) / HEIGHT];
      const ray = rayThrough(camera, { u, v });
      const way = light.place.map(
        (c, k) => c - (k === 2 ? camera.eyeHeight : 0) - ray[k] * out.reach[i],
      ) as unknown as Vec3;
      const cosine =
        (way[0] * out.normalX[i] + way[1] * out.normalY[i] + way[2] * out.normalZ[i]) / Math.hypot(...way);
      if (cosine <= 0) expect(spill[i]).toBe(0);
      else expect(spill[i]).toBeGreaterThan(0.99 * ((100 * cosine) / dot(way, way)));
      faces.add(Math.round(10 * out.normalX[i]));
    });
    expect(faces.size).toBe(3);
  });
});

describe('the shade of a box', () => {
  it('lies behind it on the ground, as wide as its lid throws it, and not before it', () => {
    const standee = standing(0, 8, 45, 1.5, 1.5, 1);
    const piece = boxPiece(camera, standee, [])!;
    const { walls, lid } = boxShades(piece, 'box');
    const data = Float32Array.from(lay(emptyRelief(), piece, 0), (value) => value / 255);
    const levels = new Float32Array(SOFT_LEVELS * data.length);
    softenCoverage(levels, { width: WIDTH, height: HEIGHT, data });
    const ends = { box: { width: WIDTH, height: HEIGHT, levels, bounds: boundsOf(data, WIDTH, HEIGHT) } };
    const seenAt = (x: number, y: number) => {
      const at = footAt(x, y);
      const [column, row] = [Math.floor(at.u * WIDTH), Math.floor(at.v * HEIGHT)];
      const region = { ...wholeRegion(WIDTH, HEIGHT), left: column, top: row, width: 1, height: 1 };
      const ray = rayThrough(camera, { u: (column + 0.5) / WIDTH, v: (row + 0.5) / HEIGHT });
      const out = new Float32Array([1]);
      const reach = new Float32Array([-camera.eyeHeight / ray[2]]);
      const light: PointLight = { place: [0, 9, 4], spillCandela: 1, airCandela: 0, radius: 0.02 };
      occlude(out, { reach }, camera, region, light, { walls, decks: [lid], standees: [], ends });
      return out[0];
    };
    // The lamp hangs right over it: a card would throw no shadow toward the eye.
    expect(seenAt(0, 8.2)).toBeLessThan(0.05);
    expect(seenAt(0, 6.5)).toBe(1);
    expect(seenAt(-2.5, 9)).toBe(1);
    expect(seenAt(2.5, 9)).toBe(1);
  });
});

describe('boxMeasures and boxAt', () => {
  const measures = fc.record({
    turn: fc.double({ min: 0.5, max: 89.5, noNaN: true }),
    left: fc.double({ min: 0.2, max: 5, noNaN: true }),
    right: fc.double({ min: 0.2, max: 5, noNaN: true }),
    height: fc.double({ min: 0.1, max: 5, noNaN: true }),
  });

  it('say the same, wherever a box stands', () => {
    fc.assert(
      fc.property(
        measures,
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 5, max: 20, noNaN: true }),
        (wanted, x, y) => {
          const foot = footAt(x, y);
          const found = boxMeasures(camera, { foot, box: boxAt(camera, foot, [], wanted) }, [])!;
          for (const key of ['turn', 'left', 'right', 'height'] as const)
            expect(found[key]).toBeCloseTo(wanted[key], 3);
        },
      ),
    );
  });

  it('take sides that lead away from the eye', () => {
    for (const turn of [0, 20, 45, 70, 89])
      for (const toward of [
        [0, 5],
        [-4, 3],
        [4, 3],
        [-9, 1],
      ] as const) {
        const { toLeft, toRight } = sidesSeen((turn * Math.PI) / 180, toward);
        expect(along(toLeft, toward)).toBeGreaterThanOrEqual(-1e-9);
        expect(along(toRight, toward)).toBeGreaterThanOrEqual(-1e-9);
        expect(along(toLeft, toRight)).toBeCloseTo(0, 9);
      }
  });

  it('turn with a side that is dragged, and never toward the eye', () => {
    const foot = footAt(0, 8);
    const before = { turn: 30, left: 2, right: 3, height: 1 };
    const to = footAt(-2, 9);
    const dragged = draggedSide(camera, foot, [], before, 'left', to);
    expect(dragged.left).toBeCloseTo(Math.hypot(2, 1), 4);
    expect(dragged.right).toBe(3);
    const box = boxAt(camera, foot, [], dragged)!;
    expect(box.left.u).toBeCloseTo(to.u, 4);
    expect(box.left.v).toBeCloseTo(to.v, 4);
    const near = draggedSide(camera, foot, [], before, 'left', footAt(-2, 6));
    const held = boxPiece(camera, { foot, box: boxAt(camera, foot, [], near)! }, [])!;
    expect(held.left[1]).toBeGreaterThan(0);
    expect(held.left[0]).toBeLessThan(0);
  });

  it('is as high as its near corner is seen', () => {
    const foot = footAt(1, 9);
    expect(cornerHeight(camera, foot, [], project(camera, [1, 9, 1.7])!)).toBeCloseTo(1.7, 6);
  });

  it('a box of no area is a card', () => {
    const foot = footAt(0, 8);
    expect(boxPiece(camera, { foot, box: { left: foot, right: foot, height: 1 } }, [])).toBeUndefined();
    expect(boxPiece(camera, { foot }, [])).toBeUndefined();
  });
});

describe('fitBox', () => {
  const shown = (standee: { foot: PlatePoint; box: ReturnType<typeof standing>['box'] }) => ({
    width: WIDTH,
    height: HEIGHT,
    data: lay(emptyRelief(), boxPiece(camera, standee, [])!, 0),
  });

  it('finds the box that a matte shows, at a turn that is told', () => {
    for (const [x, y, turn, left, right, height] of [
      [0, 8, 30, 2, 4, 1.5],
      [-2, 7, 60, 3, 1.5, 1],
      [1.5, 9, 45, 1, 3, 2],
    ]) {
      const standee = standing(x, y, turn, left, right, height);
      const fitted = fitBox(camera, [], shown(standee), standee.foot, { turns: [(turn * Math.PI) / 180] })!;
      const found = boxMeasures(camera, fitted, [])!;
      expect(Math.abs(found.left - left)).toBeLessThan(0.35);
      expect(Math.abs(found.right - right)).toBeLessThan(0.35);
      expect(Math.abs(found.height - height)).toBeLessThan(0.12);
      expect(fitted.foot.u).toBeCloseTo(standee.foot.u, 1);
    }
  });

  it('finds the turn too where none is told', () => {
    const standee = standing(0, 7, 40, 2.5, 3, 1.2);
    const found = boxMeasures(camera, fitBox(camera, [], shown(standee), standee.foot)!, [])!;
    expect(Math.abs(found.turn - 40)).toBeLessThan(6);
  });

  it('ends before a wall behind it', () => {
    const standee = standing(0, 7, 0.5, 2, 4, 1.2);
    const wall = straightPiece([-9, 8.5], [9, 8.5], { height: 4, until: undefined, finish: DULL });
    const { box, foot } = fitBox(camera, [], shown(standee), standee.foot, { turns: [0.01], walls: [wall] })!;
    const piece = boxPiece(camera, { foot, box }, [])!;
    expect(piece.y + piece.right[1]).toBeLessThan(8.5);
    expect(piece.y + piece.left[1] + piece.right[1]).toBeLessThan(8.5);
  });

  it('says nothing where the foot is not seen on the ground', () => {
    const data = new Uint8Array(WIDTH * HEIGHT);
    data.fill(255, 0, 20 * WIDTH);
    const coverage = { width: WIDTH, height: HEIGHT, data };
    expect(fitBox(camera, [], coverage, { u: 0.5, v: 0.1 })).toBeUndefined();
    expect(
      fitBox(camera, [], { ...coverage, data: new Uint8Array(data.length) }, { u: 0.5, v: 0.9 }),
    ).toBeUndefined();
  });
});
