import { closingWall } from '@/core/layout/closing-wall';
import { guessDecks, type GuessedDeck } from '@/core/layout/guess-decks';
import { guessEyeHeight } from '@/core/layout/guess-eye';
import { guessPerspective } from '@/core/layout/guess-horizon';
import { cameraOf } from '@/core/picture/camera-of';
import { guessPosts, type GuessedPost } from '@/core/layout/guess-posts';
import { footOfBox, guessThings, type GuessedThing, type ThingBox } from '@/core/layout/guess-things';
import { seenHeight } from '@/core/plan/seen-height';
import { guessWalls } from '@/core/layout/guess-walls';
import { excludes, piecesOf } from '@/core/layout/known-wall';
import type { PlatePoint } from '@/core/geometry/camera';
import { horizonAt } from '@/core/geometry/ground';
import { lineAt } from '@/core/geometry/line-at';
import type { PlateLine } from '@/core/geometry/vanishing-point';
import { middleOf } from '@/core/plane/middle-of';
import { withinOutline } from '@/core/geometry/within-outline';
import type { GroundPlan, Scene } from '@/core/scene/schema';
import type { Segmenter } from '../work/segmenter';
import type { LandPicture } from '@/engine/readouts/land';

/** A wall that was guessed: its foot, and where its top is seen its height, in eye heights. */
export interface GuessedWall {
  id: string;
  foot: [PlatePoint, PlatePoint];
  rise?: number;
}

/** A first guess of a ground plan: each part is taken or left. */
export interface PlanGuess {
  horizon?: GroundPlan['horizon'];
  /** 35 mm equivalent, where edges tell another than the plan's. */
  lens?: number;
  /** Metres, where things of known height tell another than the plan's. */
  eyeHeight?: number;
  walls: GuessedWall[];
  posts: (GuessedPost & { id: string })[];
  things: (GuessedThing & { id: string })[];
  decks: (GuessedDeck & { id: string })[];
}

/** What finds the clues of a guess in the plate. */
export type Clues = Pick<Segmenter, 'straightLines' | 'uprightThings' | 'seenThings' | 'standingThings'>;

/** A lens that differs from the plan's by less than this share is the same. */
const SAME_LENS = 0.03;

/** A guessed lens in whole millimetres, where it is another than the plan's. */
const newLens = (lens: number, own: number) =>
  Math.abs(Math.log(lens / own)) > SAME_LENS ? Math.round(lens) : undefined;

/** An eye height that differs from the plan's by less than this share is the same. */
const SAME_EYE = 0.12;

/** An eye height that is told by what stands under a horizon, in whole decimetres, where it is another than the plan's. */
export function newEyeHeight(
  seen: readonly ThingBox[],
  horizon: GroundPlan['horizon'],
  own: number,
): number | undefined {
  const eye = guessEyeHeight(seen, horizon);
  return eye !== undefined && Math.abs(Math.log(eye / own)) > SAME_EYE
    ? Math.round(10 * eye) / 10
    : undefined;
}

/** A horizon whose ends lie this near to the plan's is the same, fraction of the height. */
const SAME_HORIZON = 0.003;

const isSameHorizon = (a: GroundPlan['horizon'], b: GroundPlan['horizon']) =>
  Math.max(Math.abs(a.left - b.left), Math.abs(a.right - b.right)) < SAME_HORIZON;

/** Feet nearer than this are of one thing, fraction of the plate. */
const NEAR = 0.025;

const isNear = (a: PlatePoint, b: PlatePoint) => Math.hypot(a.u - b.u, a.v - b.v) < NEAR;

/** In the direction of what stands before a wall, the wall is so many times as far off at least: else it is a pipe or a pilaster of it. */
const BEFORE_WALL = 1.15;

/** Whether a foot lies beside a wall, or clearly before it. */
function isClearOf(piece: PlateLine, { u, v }: PlatePoint, horizon: GroundPlan['horizon']): boolean {
  const level = horizonAt(horizon, u);
  return u < piece[0].u || u > piece[1].u || v - level > BEFORE_WALL * (lineAt(piece, u) - level);
}

/** A guessed wall rises at least so high, in eye heights: what is lower is the edge of a quay before boats, a hedge or a bank. */
const LEAST_RISE = 1.6;

/** Whether a place lies within the box of a loop. */
function isWithin(loop: readonly number[], { u, v }: PlatePoint): boolean {
  const [us, vs] = [0, 1].map((axis) => loop.filter((_, i) => i % 2 === axis));
  return u > Math.min(...us) && u < Math.max(...us) && v > Math.min(...vs) && v < Math.max(...vs);
}

/** Reads the lie of the land of a scene. */
export type ReadLand = (scene: Scene) => Promise<LandPicture>;

/** What straight edges say of a plate: how it was taken, and which walls are sure. */
type LayGuess = Pick<PlanGuess, 'horizon' | 'lens' | 'walls'>;

/** Guesses horizon, lens and walls, with the lie of the land under that horizon and the lines that told them. */
export async function guessLay(scene: Scene, clues: Pick<Clues, 'straightLines'>, land: ReadLand) {
  const { plate, plan } = scene;
  const aspect = plate.width / plate.height;
  const lines = await clues.straightLines();
  const perspective = guessPerspective(lines, aspect);
  const horizon = perspective?.horizon;
  const bare = { ...plan, walls: [], decks: [], standees: [], horizon: horizon ?? plan.horizon };
  const lie = await land({ ...scene, plan: bare });
  const { width, height, level, plate: shown } = lie;
  const cover = { width, height, ground: level, sky: lie.land.map((value) => 1 - value), plate: shown };
  const walls = perspective ? guessWalls(lines, perspective, cover, aspect) : [];
  const found = perspective?.lens && newLens(perspective.lens, plan.lens);
  const lens = found ?? plan.lens;
  const camera = cameraOf({ ...scene, plan: { ...bare, lens } });
  const feet = walls.map(({ foot }) => foot);
  const closing = closingWall(feet, cover, camera, bare.horizon);
  const guess: LayGuess = {
    horizon,
    lens: found,
    walls: [...feet, ...(closing ? [closing] : [])]
      .map((foot) => {
        const top = seenHeight(camera, foot, lie);
        return { foot, id: crypto.randomUUID(), rise: top && top / plan.eyeHeight };
      })
      .filter(({ rise = Infinity }) => rise >= LEAST_RISE),
  };
  return { guess, bare, level, width, height, lines };
}

/**
 * Guesses horizon, lens, walls, posts and other things that stand from a plate's edges and from where what rises meets the ground, and
 * pavements along its walls. What is there already is not told again.
 *
 * @param land reads the lie of the land of a scene
 */
export async function guessPlan(scene: Scene, clues: Clues, land: ReadLand): Promise<PlanGuess> {
  const { plan } = scene;
  const { guess, bare, level, width, height, lines } = await guessLay(scene, clues, land);
  const { left, right } = bare.horizon;
  const seen = await clues.seenThings((left + right) / 2);
  const eyeHeight = newEyeHeight(seen, bare.horizon, plan.eyeHeight);
  const camera = cameraOf({ ...scene, plan: { ...bare, eyeHeight: eyeHeight ?? plan.eyeHeight } });
  const posts = guessPosts(
    await clues.uprightThings(),
    { width, height, ground: level },
    camera,
    bare.horizon,
  );
  const boxes = await clues.standingThings((left + right) / 2);
  const isDrawn = (outline: readonly PlatePoint[]) => {
    const corners = outline.map(({ u, v }) => [u, v] as const);
    return plan.decks.some((own) => {
      const { u, v } = middleOf(own.outline);
      return withinOutline(corners, u, v) > 0;
    });
  };
  const walls = guess.walls.filter(
    ({ foot }) => !plan.walls.some((own) => excludes(own, foot, plan.eyeHeight)),
  );
  const feet = [...plan.walls, ...walls].flatMap(piecesOf);
  const decks = guessDecks(lines, feet, { width, height, ground: level }, camera, bare.horizon).filter(
    ({ outline }) => !isDrawn(outline),
  );
  const isNew = ({ foot }: { foot: PlatePoint }) => !plan.standees.some((own) => isNear(own.foot, foot));
  const isFree = ({ foot }: { foot: PlatePoint }) =>
    isNew({ foot }) && feet.every((piece) => isClearOf(piece, foot, bare.horizon));
  const things = guessThings(
    [...seen, ...boxes.filter((box) => isFree({ foot: footOfBox(box) }))],
    camera,
    bare.horizon,
    feet,
  ).filter(isNew);
  // A strap of a suitcase is no post of its own.
  const alone = posts.filter((post) => isFree(post) && !things.some(({ loop }) => isWithin(loop, post.foot)));
  const named = <T>(part: T) => ({ ...part, id: crypto.randomUUID() });
  const horizon = guess.horizon && isSameHorizon(guess.horizon, plan.horizon) ? undefined : guess.horizon;
  return {
    ...{ ...guess, horizon, eyeHeight, walls },
    posts: alone.map(named),
    things: things.map(named),
    decks: decks.map(named),
  };
}
