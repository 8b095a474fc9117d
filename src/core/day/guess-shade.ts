/** A wall as the day shows it. */
export interface DayWall {
  /** Its normal, level, toward the eye. */
  facing: readonly [x: number, y: number];
  /** Share of the picture. */
  area: number;
  /** What is most seen of it, stops. */
  level: number;
}

/** Least share of the picture that a wall has to be told by. */
const LEAST_AREA = 0.01;

/** Walls whose normals lie within this cosine of each other are lit alike. */
const ALIKE = 0.9;

/**
 * A wall this much darker than lit ones lies in the shade, stops: paint alone hardly differs so far. One that faces the other way than the
 * brightest cannot be lit by the same sun, so less will do.
 */
const DARKER = { least: 1.9, opposite: 1.2, facing: -0.7 } as const;

/** Lit walls are this much darker than the brightest of all, stops: that one's paint is bright, too. */
const BRIGHT_PAINT = 0.5;

/** Where no lit wall is seen: how much darker than lit ground, which is often asphalt, a wall in the shade is, stops. */
const BELOW_GROUND = 2.2;

/**
 * How much brighter the sun makes a wall on a clear day, stops, and how sure that is against paint: walls differ by 1 stop among
 * themselves, the sun's share of the day by 0.6.
 */
const SUN = { stops: 2.5, paint: 1, spread: 0.6 } as const;

type Facing = DayWall['facing'];
const dot = ([ax, ay]: Facing, [bx, by]: Facing) => ax * bx + ay * by;

const round = (stops: number) => Math.round(10 * stops) / 10;

/** The stops by which a wall lies in the shade that looks some stops darker than lit ones, weighed against what the sun does on any day. */
function likely(darker: number): number {
  const [seen, known] = [1 / SUN.paint ** 2, 1 / SUN.spread ** 2];
  return round((seen * darker + known * SUN.stops) / (seen + known));
}

/**
 * How many stops darker each wall is than if the sun shone on it; 0 where it does, or where that is not sure. For a day with sun alone.
 *
 * @param ground what is most seen of the ground that the sun lights, stops
 */
export function guessShade(walls: readonly DayWall[], ground: number): number[] {
  const told = walls.filter(({ area, level }) => area >= LEAST_AREA && !Number.isNaN(level));
  const brightest = told.toSorted((a, b) => b.level - a.level).at(0);
  if (!brightest) return walls.map(() => 0);
  const isLitWall = brightest.level > ground - BELOW_GROUND;
  const lit = isLitWall ? brightest.level - BRIGHT_PAINT : ground;
  const isDark = (wall: DayWall) => {
    const isOpposite = dot(wall.facing, brightest.facing) < DARKER.facing;
    const least = isOpposite ? DARKER.opposite : DARKER.least;
    return lit - wall.level > (isLitWall ? least : BELOW_GROUND);
  };
  return walls.map((wall) => {
    const alike = told.filter(({ facing }) => dot(facing, wall.facing) > ALIKE);
    // The sun lights all that faces one way, or none of it: a dark house in a lit row is painted dark.
    return alike.length > 0 && alike.every(isDark) && isDark(wall) ? likely(lit - wall.level) : 0;
  });
}
