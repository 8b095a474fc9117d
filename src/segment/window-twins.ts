import type { Camera, PlatePoint } from '@/core/geometry/camera';
import { alongOf, onPlane, type UprightPlane } from '@/core/geometry/upright-plane';
import { dot } from '@/core/geometry/vec3';
import { edgeLines } from '@/core/layout/edge-lines';
import type { Facade } from '@/core/layout/facades';
import { followFrame } from '@/core/layout/glass-corners';
import { squareView } from '@/core/layout/square-view';
import type { Frame } from '@/core/layout/window-frame';
import type { Plane } from '@/core/plane/plane';
import { middleOf } from '@/core/plane/middle-of';
import { flags, withMats, type OpenCv } from './opencv';

/** A window that looks like another on the same wall: its own outline, and how much alike, -1 to 1. */
export interface WindowTwin {
  outline: PlatePoint[];
  score: number;
}

/** Pixels that the window's sides have in the view of the wall. */
const DETAIL = { across: 30, up: 42 } as const;

/** What around the window counts, share of its sides: its frame, and the wall at its corners. */
const AROUND = 0.18;

/** Least likeness of a twin, and by how much a twin's sides must be seen. */
const LEAST = { likeness: 0.54, seen: 0.75 } as const;

/** Contrast under which a window shows nothing, codes, and most places that are weighed. */
const PLAIN = 4;
const MOST = 4000;

/** Farthest that a wall is searched, metres each way, and most pixels of its view. */
const FARTHEST = { along: 70, up: 25, pixels: 3_000_000 } as const;

/** Smallest twin that is told, share of the plate's width: what is smaller shows no window. */
const SMALLEST = 0.006;

/** How far an outline's level sides are from level on a plane, metres up for one along. */
function slope(camera: Camera, plane: UprightPlane, outline: readonly PlatePoint[]): number {
  const along = alongOf(plane);
  const placed = outline.map((at) => onPlane(camera, plane, at));
  return placed.reduce((sum, place, i) => {
    const next = placed[(i + 1) % placed.length];
    const across = Math.abs(dot([next[0] - place[0], next[1] - place[1], 0], along));
    const up = Math.abs(next[2] - place[2]);
    return sum + (across > up ? up / across : 0);
  }, 0);
}

/** The plane on which an outline lies: the wall that is known there, else the one on which its level sides are most level. */
export function straightestFacade(
  camera: Camera,
  facades: readonly Facade[],
  outline: readonly PlatePoint[],
): Facade {
  const known = facades.find((facade) => facade.known);
  if (known) return known;
  const slopes = facades.map((facade) => slope(camera, facade, outline));
  return facades[slopes.indexOf(Math.min(...slopes))];
}

/** Windows on one wall that look like one of it: the wall is seen square on, where all of a kind are of one size. */
export function windowTwins(
  cv: OpenCv,
  plate: Plane,
  camera: Camera,
  plane: UprightPlane,
  outline: readonly PlatePoint[],
): WindowTwin[] {
  const middle = middleOf(outline);
  const origin = onPlane(camera, plane, middle);
  const along = alongOf(plane);
  const placed = outline.map((at) => {
    const place = onPlane(camera, plane, at);
    return { along: dot([place[0] - origin[0], place[1] - origin[1], 0], along), up: place[2] - origin[2] };
  });
  const reach = (values: number[]) => Math.max(...values) - Math.min(...values);
  const size = { along: reach(placed.map((p) => p.along)), up: reach(placed.map((p) => p.up)) };
  const metres = { along: size.along / DETAIL.across, up: size.up / DETAIL.up };
  const ends = endsOfWall(camera, plane, origin, along);
  const pixels = (length: number, step: number, most: number) => Math.round(Math.min(length, most) / step);
  const view = squareView(plate, camera, plane, middle, metres, {
    left: pixels(-ends.from, metres.along, FARTHEST.along),
    right: pixels(ends.to, metres.along, FARTHEST.along),
    above: pixels(FARTHEST.up, metres.up, FARTHEST.up),
    below: pixels(Math.max(size.up, origin[2]), metres.up, FARTHEST.up),
  });
  if (view.width * view.height > FARTHEST.pixels) return [];
  const [mx, my] = [Math.ceil(AROUND * DETAIL.across), Math.ceil(AROUND * DETAIL.up)];
  const half = { x: DETAIL.across / 2 + mx, y: DETAIL.up / 2 + my };
  const edges = { upright: edgeLines(view, true), level: edgeLines(view, false) };
  return likePlaces(cv, view, view.middle, half).flatMap(({ x, y, score }): WindowTwin[] => {
    const frame: Frame = {
      left: x - DETAIL.across / 2,
      right: x + DETAIL.across / 2,
      top: y - DETAIL.up / 2,
      bottom: y + DETAIL.up / 2,
    };
    const seen = [
      edges.upright.seen(frame.left, frame.top, frame.bottom),
      edges.upright.seen(frame.right, frame.top, frame.bottom),
      edges.level.seen(frame.top, frame.left, frame.right),
      edges.level.seen(frame.bottom, frame.left, frame.right),
    ].sort((a, b) => a - b);
    // One side may be hidden: behind a lamp-post, in the shade of a reveal.
    if (seen[1] < LEAST.seen) return [];
    const corners =
      placed.length === 4
        ? followFrame(edges, frame).map(([cx, cy]) => view.toPlate(cx, cy))
        : placed.map((p) => view.toPlate(x + p.along / metres.along, y - p.up / metres.up));
    const us = corners.map(({ u }) => u);
    const inside = corners.every(({ u, v }) => u > 0 && u < 1 && v > 0 && v < 1);
    return inside && reach(us) > SMALLEST ? [{ outline: corners, score }] : [];
  });
}

/** How far a plane is seen from a place of it, both ways along, metres: to the plate's edges. */
function endsOfWall(
  camera: Camera,
  plane: UprightPlane,
  origin: readonly number[],
  along: readonly number[],
) {
  const at = (u: number) => {
    const place = onPlane(camera, plane, { u, v: 0.5 });
    return (place[0] - origin[0]) * along[0] + (place[1] - origin[1]) * along[1];
  };
  const [a, b] = [at(0), at(1)];
  return {
    from: Math.max(-FARTHEST.along, Math.min(a, b, 0)),
    to: Math.min(FARTHEST.along, Math.max(a, b, 0)),
  };
}

/** Places of a view that look like the part of it around one, the most alike first; none of them nearer than its size. */
function likePlaces(
  cv: OpenCv,
  { width, height, data }: Plane,
  at: { x: number; y: number },
  half: { x: number; y: number },
): { x: number; y: number; score: number }[] {
  return withMats((keep) => {
    const view = keep(cv.matFromArray(height, width, flags(cv).CV_32F, data));
    const [x0, y0] = [Math.max(0, at.x - half.x), Math.max(0, at.y - half.y)];
    const [x1, y1] = [Math.min(width, at.x + half.x + 1), Math.min(height, at.y + half.y + 1)];
    const sample = keep(view.roi({ x: x0, y: y0, width: x1 - x0, height: y1 - y0 }));
    const likeness = keep(new cv.Mat());
    const [mean, spread] = [keep(new cv.Mat()), keep(new cv.Mat())];
    cv.meanStdDev(sample, mean, spread);
    if (spread.data64F[0] < PLAIN) return [];
    cv.matchTemplate(view, sample, likeness, flags(cv).TM_CCOEFF_NORMED);
    const scores = likeness.data32F;
    const found: { x: number; y: number; score: number }[] = [];
    for (let i = 0; i < scores.length; i++) {
      if (scores[i] < LEAST.likeness || scores[i] > 1.01) continue;
      const [x, y] = [(i % likeness.cols) + at.x - x0, Math.floor(i / likeness.cols) + at.y - y0];
      found.push({ x, y, score: scores[i] });
    }
    found.sort((a, b) => b.score - a.score);
    const kept: typeof found = [];
    const isFar = (p: { x: number; y: number }, q: { x: number; y: number }) =>
      Math.abs(p.x - q.x) > half.x || Math.abs(p.y - q.y) > half.y;
    for (const one of found.slice(0, MOST)) {
      if (isFar(one, at) && kept.every((other) => isFar(one, other))) kept.push(one);
    }
    return kept;
  });
}
