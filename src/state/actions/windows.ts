import type { Alike } from '@/core/fixture/twins';
import { alongRay, project, rayThrough, type PlatePoint } from '@/core/geometry/camera';
import { placeOnStalk } from '@/core/geometry/place-on-stalk';
import { wallAt } from '@/core/plan/wall-at';
import type { LandPicture } from '@/engine/readouts/land';
import { cameraOf } from '@/core/picture/camera-of';
import { middleOf } from '@/core/plane/middle-of';
import { wallPieces } from '@/core/plan/wall-pieces';
import { withinOutline } from '@/core/geometry/within-outline';
import { MOST_FIXTURES, type Fixture, type Scene } from '@/core/scene/schema';
import type { WindowClues } from '@/segment/segment-service';
import type { WindowTwin } from '@/segment/window-twins';

/** What a scene's ground plan says to whom looks for windows. */
export function windowClues(scene: Scene): WindowClues {
  const camera = cameraOf(scene);
  return { camera, horizon: scene.plan.horizon, walls: wallPieces(camera, scene.plan.walls) };
}

/** What stands farther off is as good as the horizon, metres. */
const FARTHEST = 500;

/** The place of the ground under a place that is seen, so many lengths of its ray away. */
function under(scene: Scene, at: PlatePoint, reach: number): PlatePoint | undefined {
  const camera = cameraOf(scene);
  const [x, y] = alongRay(camera, rayThrough(camera, at), reach);
  return project(camera, [x, y, 0]);
}

/** Whether a wall of the plan is seen at a place. */
const isOnWall = (scene: Scene, at: PlatePoint) => {
  const { camera, walls } = windowClues(scene);
  return wallAt(camera, walls, at) !== undefined;
};

/**
 * The foot of a window on which no wall is said: where the lie of the land has what is seen there meet the ground. Undefined
 * where a wall is said, or where the land tells nothing.
 */
export function seenFoot(scene: Scene, { width, height, reach, land }: LandPicture, at: PlatePoint) {
  if (isOnWall(scene, at)) return undefined;
  const x = Math.min(width - 1, Math.floor(at.u * width));
  const pixel = Math.min(height - 1, Math.floor(at.v * height)) * width + x;
  const isLand = land[pixel] > 0.5 && reach[pixel] > 0 && reach[pixel] < FARTHEST;
  return isLand ? under(scene, at, reach[pixel]) : undefined;
}

/** The foot of a window's twin: under the wall on which it is seen, else as far ahead as the window. */
export function footOfTwin(scene: Scene, fixture: Fixture, at: PlatePoint): PlatePoint {
  const { camera, walls } = windowClues(scene);
  const hit = wallAt(camera, walls, at);
  if (hit) return project(camera, [hit.place[0], hit.place[1], 0]) ?? fixture.foot;
  const ahead = placeOnStalk(camera, fixture.at, fixture.foot)[1];
  return under(scene, at, ahead / Math.max(1e-6, rayThrough(camera, at)[1])) ?? fixture.foot;
}

/** The twins of a lit window among those that look like it, leaving out what burns. */
export function windowsIn(scene: Scene, fixture: Fixture, found: readonly WindowTwin[]): Alike[] {
  const burns = ({ outline }: WindowTwin) => {
    const { u, v } = middleOf(outline);
    return scene.fixtures.some(
      ({ path }) =>
        path.length > 2 &&
        withinOutline(
          path.map((at) => [at.u, at.v] as const),
          u,
          v,
        ) > 0,
    );
  };
  const breadth = (path: Fixture['path']) =>
    Math.max(...path.map(({ u }) => u)) - Math.min(...path.map(({ u }) => u));
  return found
    .filter((one) => !burns(one))
    .map(({ outline, score }) => ({
      ...{ at: middleOf(outline), path: outline, score },
      times: breadth(outline) / Math.max(1e-6, breadth(fixture.path)),
    }))
    .slice(0, MOST_FIXTURES - scene.fixtures.length);
}
