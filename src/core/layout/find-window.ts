import type { Camera, PlatePoint } from '../geometry/camera';
import type { Plane } from '../plane/plane';
import { edgeLines } from './edge-lines';
import type { Facade } from './facades';
import { glassCorners } from './glass-corners';
import { scaleOnPlane, squareView, type SquareView } from './square-view';
import { differsFromWall, windowFrames, type ViewEdges } from './window-frame';

/** How much better level edges must lie along lines of a plane that is only tried than of the wall that is said. */
const KNOWN = 1.3;

/** How far around a place a window is looked for, and how far around it level edges tell how its wall faces: shares of the plate's width. */
const AROUND = { window: 0.16, facing: 0.06 } as const;

/** Least share of each side that must be seen for a window to be told. */
const TRUST = 0.8;

/** A plane, and what is seen on it around a place. */
interface Sight {
  facade: Facade;
  view: SquareView;
  edges: ViewEdges;
  /** How well level edges lie along its lines. */
  levelness: number;
}

/** How well level edges lie along lines of a view: on the plane that is truly there they are sharp, on others they are smeared. */
function levelnessOf({ middle }: SquareView, { level }: ViewEdges, reach: number): number {
  let sum = 0;
  for (let y = middle.y - reach; y <= middle.y + reach; y++) {
    sum += level.strength(y, middle.x - reach, middle.x + reach + 1) ** 2;
  }
  return sum;
}

function sightOn(plate: Plane, camera: Camera, facade: Facade, at: PlatePoint): Sight | undefined {
  const scale = scaleOnPlane(plate, camera, facade, at);
  if (!scale) return undefined;
  const half = Math.round(AROUND.window * plate.width);
  const reach = { left: half, right: half, above: half, below: half };
  const view = squareView(plate, camera, facade, at, scale, reach);
  const edges = { upright: edgeLines(view, true), level: edgeLines(view, false) };
  const levelness = levelnessOf(view, edges, Math.round(AROUND.facing * plate.width));
  return { facade, view, edges, levelness: facade.known ? KNOWN * levelness : levelness };
}

/**
 * Windows in which a place of the plate may lie, the likeliest first: the corners of the glass of each as they are seen, from its upper
 * left, around. None where none is sure: then a place is no part of any. Where a window has bars, one of its lights may be told beside
 * all of it.
 *
 * @param plate one channel, in codes
 * @param facades planes on which it may lie
 */
export function findWindows(
  plate: Plane,
  camera: Camera,
  facades: readonly Facade[],
  at: PlatePoint,
): PlatePoint[][] {
  const sights = facades
    .flatMap((facade) => sightOn(plate, camera, facade, at) ?? [])
    .sort((a, b) => b.levelness - a.levelness);
  for (const { facade, view, edges } of sights) {
    const isSure = ({ trust, frame }: (typeof found)[number]) =>
      trust >= TRUST && differsFromWall(view, frame);
    const found = windowFrames(view, edges, facade.known);
    if (found.length === 0 || !isSure(found[0])) continue;
    return found.filter(isSure).map(({ frame }) => {
      const corners = glassCorners(view, edges, frame, facade.known ? view.metres : undefined);
      return corners.map(([x, y]) => view.toPlate(x, y));
    });
  }
  return [];
}
