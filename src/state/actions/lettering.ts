import { stringToPaths } from 'hershey';
import { cameraOf } from '@/core/picture/camera-of';
import { project, type PlatePoint } from '@/core/geometry/camera';
import { wallPieces } from '@/core/plan/wall-pieces';
import { wallAt } from '@/core/plan/wall-at';
import { add, scale, type Vec3 } from '@/core/geometry/vec3';
import { MOST_POINTS } from '@/core/fixture/fixture-base';
import type { Tube } from '@/core/fixture/tube-pieces';
import type { Scene } from '@/core/scene/schema';

/** Where the letters of the stroke font stand, in its units: their foot. */
const FOOT = -9;

/** Characters that the stroke font has. */
const isKnown = (character: string) => /^[\w .,:;!?"°$/()|\-+='#&\\*[\]{}<>~%@]$/.test(character);

/** The characters of a text that the letters of strokes lack, each once. */
export const missingLetters = (text: string): string[] => [...new Set([...text].filter((c) => !isKnown(c)))];

/** The strokes of a text: from its left at 0 to its right at 1, up from its foot in the same measure. */
function strokesOf(text: string): [x: number, y: number][][] {
  const { bounds, paths } = stringToPaths(text);
  const width = bounds.maxX - bounds.minX;
  return paths
    .filter((path) => path.length > 1)
    .map((path) => path.map(([x, y]) => [(x - bounds.minX) / width, (y - FOOT) / width]));
}

/**
 * A text as a tube of strokes that stand on a line from one place to another: on a wall where both lie on one, in its
 * perspective, else flat in the picture. A text that the scene could not hold is undefined.
 */
export function letteringAcross(
  scene: Scene,
  text: string,
  from: PlatePoint,
  to: PlatePoint,
): Pick<Tube, 'path' | 'breaks'> | undefined {
  const strokes = strokesOf([...text].filter(isKnown).join(''));
  const count = strokes.reduce((sum, stroke) => sum + stroke.length, 0);
  if (count < 2 || count > MOST_POINTS) return undefined;
  const place = placing(scene, from, to);
  const breaks = strokes.slice(1).reduce<number[]>((starts, _, k) => {
    return [...starts, (starts.at(-1) ?? 0) + strokes[k].length];
  }, []);
  return { path: strokes.flat().map(([x, y]) => place(x, y)), breaks };
}

/** Where on the plate a place of a text is: along its line, and up from it. */
function placing(scene: Scene, from: PlatePoint, to: PlatePoint): (x: number, y: number) => PlatePoint {
  const camera = cameraOf(scene);
  const walls = wallPieces(camera, scene.plan.walls);
  const [first, last] = [wallAt(camera, walls, from), wallAt(camera, walls, to)];
  const [du, dv] = [to.u - from.u, to.v - from.v];
  const flat = (x: number, y: number) => ({
    u: from.u + x * du + (y * dv) / camera.aspect,
    v: from.v + x * dv - y * du * camera.aspect,
  });
  if (!first || first.piece !== last?.piece) return flat;
  const way = add(last.place, scale(first.place, -1));
  const long = Math.hypot(...way);
  return (x, y) => {
    const at: Vec3 = add(add(first.place, scale(way, x)), [0, 0, y * long]);
    return project(camera, at) ?? flat(x, y);
  };
}
