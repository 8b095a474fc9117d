import type * as OpenCvModule from '@techstark/opencv-js';
import { depthOn, onPlane, type Homography, type SamePlace } from '@/core/geometry/place-map';
import { median } from '@/core/plane/median';
import { greyCopy } from './grey-copy';
import { flags, withMats, type Keep, type OpenCv } from './opencv';
import type { Picture } from './picture';

/** How one photo shows what another one does. */
export interface PlaceMatch {
  /** From places of the other to those of this one, as far as all is far away or level. */
  flat: Homography;
  /** Places that were found on both. */
  known: SamePlace[];
}

/** The best likeness of a feature is so much better than the second best. */
const CLEAR = 0.8;

/** How far off the plane map an inlier lies at most, pixels of the grey copy. */
const INLIER = 3;

/** What makes a match sure: inliers, their share of all clear likenesses, and how much of the picture they span each way. */
const SURE = { inliers: 25, share: 0.15, span: 0.25 } as const;

/** Corners of a plate, around it. */
const CORNERS = [
  { u: 0, v: 0 },
  { u: 1, v: 0 },
  { u: 1, v: 1 },
  { u: 0, v: 1 },
] as const;

/** How much larger or smaller one photo may show the place. */
const MOST_TIMES = 3;

/** What the eye's own way moves: how far at most, and alike with how many places beside, widths of the plate. */
const PARALLAX = { most: 0.06, beside: 6, alike: 0.005 } as const;

/** Most places that are held against those beside them. */
const MOST_TRIED = 800;

/** OpenCV's own types leave it out. */
interface WithAkaze {
  AKAZE: new () => OpenCvModule.ORB;
}

interface Match {
  queryIdx: number;
  trainIdx: number;
  distance: number;
}

interface Features {
  points: OpenCvModule.KeyPointVector;
  descriptors: OpenCvModule.Mat;
  width: number;
  height: number;
}

/**
 * Looks whether two photos show the same place, and where each shows what the other does: features that look alike (AKAZE, Alcantarilla
 * 2013), the plane map on which most agree (RANSAC), and what lies nearer or farther beside it. Undefined where it is not sure.
 */
export function samePlace(cv: OpenCv, here: Picture, there: Picture): PlaceMatch | undefined {
  return withMats((keep) => {
    const [from, to] = [featuresOf(cv, keep, there), featuresOf(cv, keep, here)];
    const pairs = clearPairs(cv, keep, from, to);
    if (pairs.length < SURE.inliers) return undefined;
    const found = planeMap(cv, keep, pairs, to);
    if (!found || !isSure(found.inliers, pairs.length) || !isSound(found.flat)) return undefined;
    return { flat: found.flat, known: withParallax(pairs, found.flat) };
  });
}

function featuresOf(cv: OpenCv, keep: Keep, picture: Picture): Features {
  const grey = greyCopy(cv, keep, picture);
  const points = keep(new cv.KeyPointVector());
  const descriptors = keep(new cv.Mat());
  const finder = keep(new (cv as unknown as WithAkaze).AKAZE());
  finder.detectAndCompute(grey, keep(new cv.Mat()), points, descriptors);
  return { points, descriptors, width: grey.cols, height: grey.rows };
}

/** Features that look alike, and like no other. */
function clearPairs(cv: OpenCv, keep: Keep, from: Features, to: Features): SamePlace[] {
  if (from.descriptors.rows < 2 || to.descriptors.rows < 2) return [];
  const matcher = keep(new cv.BFMatcher(flags(cv).NORM_HAMMING, false));
  const matches = keep(new cv.DMatchVectorVector());
  matcher.knnMatch(from.descriptors, to.descriptors, matches, 2);
  const placeOf = ({ points, width, height }: Features, k: number) => {
    const { x, y } = (points.get(k) as { pt: { x: number; y: number } }).pt;
    return { u: (x + 0.5) / width, v: (y + 0.5) / height };
  };
  const pairs: SamePlace[] = [];
  for (let k = 0; k < matches.size(); k++) {
    const both = matches.get(k);
    const [best, next] = Array.from({ length: both.size() }, (_, n) => both.get(n) as Match);
    if (next && best.distance < CLEAR * next.distance)
      pairs.push({ from: placeOf(from, best.queryIdx), to: placeOf(to, best.trainIdx) });
    both.delete();
  }
  return pairs;
}

/** The plane map on which most pairs agree, in fractions of the plates, and the pairs that do. */
function planeMap(cv: OpenCv, keep: Keep, pairs: readonly SamePlace[], { width, height }: Features) {
  // In pixels of the second, so that what agrees is as near each way.
  const flat = (end: 'from' | 'to') => pairs.flatMap(({ [end]: { u, v } }) => [u * width, v * height]);
  const mat = (end: 'from' | 'to') => keep(cv.matFromArray(pairs.length, 1, cv.CV_32FC2, flat(end)));
  const agrees = keep(new cv.Mat());
  const found = keep(cv.findHomography(mat('from'), mat('to'), flags(cv).RANSAC, INLIER, agrees));
  if (found.rows !== 3) return undefined;
  const [a, b, c, d, e, f, g, h, i] = found.data64F;
  const aspect = width / height;
  const map: Homography = [
    ...([a, b / aspect, c / width, d * aspect, e, f / height] as const),
    ...([g * width, h * height, i] as const),
  ];
  return { flat: map, inliers: pairs.filter((_, k) => agrees.data[k] !== 0) };
}

/** Whether enough agrees, over enough of the picture. */
function isSure(inliers: readonly SamePlace[], all: number): boolean {
  const span = (axis: 'u' | 'v') => {
    const values = inliers.map(({ to }) => to[axis]);
    return Math.max(...values) - Math.min(...values);
  };
  const many = inliers.length >= SURE.inliers && inliers.length > SURE.share * all;
  return many && span('u') > SURE.span && span('v') > SURE.span;
}

/** Whether a map shows the whole plate from its front, about as large. */
function isSound(flat: Homography): boolean {
  const corners = CORNERS.map((at) => onPlane(flat, at));
  if (CORNERS.some((at) => !(depthOn(flat, at) > 0.1 * flat[8]))) return false;
  const area = corners.reduce((sum, p, k) => {
    const q = corners[(k + 1) % 4];
    return sum + (p.u * q.v - q.u * p.v) / 2;
  }, 0);
  return area > MOST_TIMES ** -2 && area < MOST_TIMES ** 2;
}

/** Pairs that move as those beside them do. */
function withParallax(pairs: readonly SamePlace[], flat: Homography): SamePlace[] {
  const every = Math.max(1, Math.ceil(pairs.length / MOST_TRIED));
  const off = pairs
    .filter((_, k) => k % every === 0)
    .map((pair) => {
      const { u, v } = onPlane(flat, pair.from);
      return { pair, du: pair.to.u - u, dv: pair.to.v - v };
    })
    .filter(({ du, dv }) => Math.hypot(du, dv) < PARALLAX.most);
  return off
    .filter((one) => {
      const beside = off
        .map((other) => ({ other, away: apart(one.pair, other.pair) }))
        .sort((p, q) => p.away - q.away)
        .slice(1, 1 + PARALLAX.beside)
        .map(({ other }) => other);
      const middle = (axis: 'du' | 'dv') => median(beside.map((other) => other[axis]));
      return Math.hypot(one.du - middle('du'), one.dv - middle('dv')) < PARALLAX.alike;
    })
    .map(({ pair }) => pair);
}

const apart = (a: SamePlace, b: SamePlace) => Math.hypot(a.from.u - b.from.u, a.from.v - b.from.v);
