import { placeFixture } from '../fixture/place-fixture';
import { cameraOf } from './camera-of';
import type { Scene } from '../scene/schema';
import { horizonAt } from '../geometry/ground';
import { standsOn } from '../plan/surfaces';
import { wallPieces, type WallPiece } from '../plan/wall-pieces';
import type { PlatePoint } from '../geometry/camera';
import { hypot } from '../plane/hypot';

/** A lamp this near to the eye lights everything before it alike, metres. */
const AT_EYE = 0.6;

/** Share of a wall's length at its ends in which two may meet without crossing. */
const ENDS = 0.02;

/** What of a scene's ground plan cannot be, in words that say what to do. */
export function planFaults(scene: Scene): string[] {
  const { horizon, walls, standees, decks, eyeHeight } = scene.plan;
  const camera = cameraOf(scene);
  const faults: string[] = [];
  const middle = horizonAt(horizon, 0.5);
  if (middle < 0 || middle > 1) {
    faults.push(
      `The horizon lies ${middle < 0 ? 'above' : 'below'} the picture. Drag it to where level ground would end.`,
    );
  }
  const isOver = ({ u, v }: PlatePoint) => v <= horizonAt(horizon, u);
  for (const { name, foot } of [...walls, ...standees]) {
    if ([foot].flat().some(isOver))
      faults.push(`The foot of ${name} lies above the horizon. Drag it down to the ground.`);
  }
  for (const { name, outline, height } of decks) {
    const wrong = outline.filter((at) => isOver(at) === height < eyeHeight).length;
    if (wrong > outline.length / 2) {
      const where = height < eyeHeight ? 'below' : 'above';
      faults.push(
        `${name}, at ${height.toFixed(1)} m, can only be seen ${where} the horizon. Change its height or its corners.`,
      );
    }
  }
  const pieces = walls.map((wall) => wallPieces(camera, [wall]));
  pieces.forEach((one, i) => {
    for (let k = i + 1; k < pieces.length; k++) {
      if (one.some((piece) => pieces[k].some((other) => cross(piece, other)))) {
        faults.push(`${walls[i].name} and ${walls[k].name} cross. Let one end at the other.`);
      }
    }
  });
  for (const { name, foot } of standees) {
    const [x, y] = standsOn(camera, foot, decks);
    const before = walls.find((_, k) => pieces[k].some((piece) => standsBetween(piece, x, y)));
    if (before)
      faults.push(`${name} stands behind ${before.name}, where it cannot be seen. Drag its foot down.`);
  }
  for (const fixture of scene.fixtures) {
    const [x, y, z] = placeFixture(camera, fixture).place;
    if (hypot(x, y, z - eyeHeight) < AT_EYE)
      faults.push(`${fixture.name} hangs right before the eye. Drag its foot farther off.`);
  }
  return faults;
}

/** Where two pieces of walls cross, away from their ends, as seen from above. */
function cross(a: WallPiece, b: WallPiece): boolean {
  const turn = (a.bx - a.ax) * (b.by - b.ay) - (a.by - a.ay) * (b.bx - b.ax);
  if (Math.abs(turn) < 1e-9) return false;
  const [x, y] = [b.ax - a.ax, b.ay - a.ay];
  const onA = (x * (b.by - b.ay) - y * (b.bx - b.ax)) / turn;
  const onB = (x * (a.by - a.ay) - y * (a.bx - a.ax)) / turn;
  return [onA, onB].every((share) => share > ENDS && share < 1 - ENDS);
}

/** Whether a piece of a wall, higher than a person, stands clearly between the eye and a place of the ground. */
function standsBetween({ ax, ay, bx, by, height }: WallPiece, x: number, y: number): boolean {
  const turn = x * (by - ay) - y * (bx - ax);
  if (Math.abs(turn) < 1e-9 || height < 2) return false;
  const reach = (ax * (by - ay) - ay * (bx - ax)) / turn;
  const share = (ax * y - ay * x) / turn;
  return share > 0 && share < 1 && reach > 0 && reach < 0.9;
}
