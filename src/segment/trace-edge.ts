import type { Mat } from '@techstark/opencv-js';
import type { PlatePoint } from '@/core/geometry/camera';
import { flags, withMats, type OpenCv } from './opencv';
import { boxAround, type Box, type Picture } from './picture';

/** Half the side of the square around a start in which edges are followed, pixels. */
const REACH = 280;

/** How far a traced line may be from the points that are kept of it, pixels. */
const TOLERANCE = 1.2;

const EDGES = { weak: 30, strong: 90, gradient: 220 };

/** What of OpenCV's IntelligentScissorsMB is used; its own types leave it out. */
interface Scissors {
  setEdgeFeatureCannyParameters: (weak: number, strong: number) => void;
  setGradientMagnitudeMaxLimit: (most: number) => void;
  applyImage: (image: Mat) => void;
  buildMap: (from: { x: number; y: number }) => void;
  getContour: (to: { x: number; y: number }, contour: Mat) => void;
  delete: () => void;
}

/** Follows a picture's edges from a place to others. */
export interface EdgeTrace {
  /** Points between the start and a place, along edges, without the start; only the place itself when it is out of reach. */
  to: (place: PlatePoint) => PlatePoint[];
  close: () => void;
}

/** Begins at a place to follow edges (intelligent scissors, Mortensen and Barrett 1995). */
export function traceEdges(cv: OpenCv, { width, height, rgb }: Picture, from: PlatePoint): EdgeTrace {
  const box = boxAround([from.u, from.v], { width, height }, () => REACH);
  if (!box) return { to: (place) => [place], close: () => {} };
  const Tool = (cv as unknown as { segmentation_IntelligentScissorsMB: new () => Scissors })
    .segmentation_IntelligentScissorsMB;
  const scissors = new Tool();
  scissors.setEdgeFeatureCannyParameters(EDGES.weak, EDGES.strong);
  scissors.setGradientMagnitudeMaxLimit(EDGES.gradient);
  withMats((keep) => {
    const part = new Uint8Array(3 * box.width * box.height);
    for (let y = 0; y < box.height; y++) {
      const at = 3 * ((box.y + y) * width + box.x);
      part.set(rgb.subarray(at, at + 3 * box.width), 3 * y * box.width);
    }
    scissors.applyImage(keep(cv.matFromArray(box.height, box.width, flags(cv).CV_8UC3, part)));
    scissors.buildMap(pixelIn(box, from, width, height)!);
  });
  return {
    to(place) {
      const end = pixelIn(box, place, width, height);
      if (!end) return [place];
      return withMats((keep) => {
        const [contour, kept] = [keep(new cv.Mat()), keep(new cv.Mat())];
        scissors.getContour(end, contour);
        if (contour.rows < 2) return [place];
        cv.approxPolyDP(contour, kept, TOLERANCE, false);
        const points: PlatePoint[] = [];
        for (let i = 1; i < kept.rows - 1; i++) {
          const [x, y] = [kept.data32S[2 * i], kept.data32S[2 * i + 1]];
          points.push({ u: (box.x + x + 0.5) / width, v: (box.y + y + 0.5) / height });
        }
        return [...points, place];
      });
    },
    close: () => scissors.delete(),
  };
}

function pixelIn(box: Box, { u, v }: PlatePoint, width: number, height: number) {
  const [x, y] = [Math.floor(u * width) - box.x, Math.floor(v * height) - box.y];
  return x >= 0 && y >= 0 && x < box.width && y < box.height ? { x, y } : undefined;
}
