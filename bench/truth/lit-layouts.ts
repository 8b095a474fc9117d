import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { hypot } from '@/core/plane/hypot';
import { makeFixture } from '@/core/fixture/make-fixture';
import type { Fixture } from '@/core/scene/schema';
import { LAYOUT_ROOT, placeOf, readLayout, SHOWS, type Layout, type Pair } from './layout-files';
import { fixtureBasics, type Entered } from './lit-scenes';
import { keptIds, TRUTH } from './truth-files';

/** A fixture as the truth of a night has it. */
interface KnownFixture {
  id: number;
  group: string;
  kind: string;
  centre: Pair;
  foot: Pair;
  radius?: number;
  lumens: number;
  outline?: Pair[];
  line?: Pair[];
  style?: 'room' | 'blind';
  axis_world?: number[];
  world: number[];
  foot_world: number[];
  lamp_inside_world?: number[];
}

/** Gestures that a person takes for the lie of the land: one for the horizon, at most one for a road, the others here. */
const GESTURES = { walls: 6, standees: 6 } as const;

/** Share of a wall's foot that is seen from which a person draws it, and the least area of a thing that is stood up. */
const SEEN = { wall: 0.1, thing: 0.0015 } as const;

/** The road where the eye stands on the pavement, as a person draws it along its kerb, and how far down it lies, metres. */
const ROADS: Record<string, Pair[][]> = {
  d02: [
    [
      [0, 0.9154],
      [1, 0.6156],
      [1, 1],
      [0, 1],
    ],
  ],
  d07: [
    [
      [0, 0.8025],
      [1, 0.6931],
      [1, 0.9125],
      [0.8025, 1],
      [0, 1],
    ],
  ],
};
const KERB = 0.12;

/** Kinds of things that a person makes boxes of. */
const BOXES = new Set(['car', 'bench', 'planter', 'bin', 'boat']);

/** Rows between two points of a rough loop. */
const LOOP_STEP = 8;

const known = async (name: string): Promise<KnownFixture[]> =>
  (
    JSON.parse(await readFile(join(LAYOUT_ROOT, name, 'truth', 'fixtures.json'), 'utf8')) as {
      fixtures: KnownFixture[];
    }
  ).fixtures;

/** A rough loop around a standing thing within its box: the outermost of its pixels in every few rows. */
function roughLoop(ids: Uint8Array, [left, top, right, bottom]: number[]): Pair[] {
  const { width, height } = TRUTH;
  const [x0, x1] = [Math.floor(left * width), Math.min(width - 1, Math.ceil(right * width))];
  const [y0, y1] = [Math.floor(top * height), Math.min(height - 1, Math.ceil(bottom * height))];
  const rows: { y: number; from: number; to: number }[] = [];
  for (let y = y0; y <= Math.min(y1, height - 1); y++) {
    const row = ids.subarray(y * width + x0, y * width + x1 + 1);
    const from = row.indexOf(SHOWS.standing);
    if (from >= 0) rows.push({ y, from: x0 + from, to: x0 + row.lastIndexOf(SHOWS.standing) + 1 });
  }
  // Every few rows, and the lowest: there it stands.
  const drawn = rows.filter((_, k) => k % LOOP_STEP === 0 || k === rows.length - 1);
  const side = (of: 'from' | 'to') => drawn.map((row): Pair => [row[of] / width, (row.y + 1) / height]);
  return [...side('from'), ...side('to').reverse()];
}

/** How far a foot line goes on beyond the picture's edge that cuts it, as a share of its length. */
const BEYOND = 0.5;

/** A foot line as a person draws it: on beyond the picture where its edge cuts it. */
function drawnFoot(from: Pair, to: Pair): Pair[] {
  const isCut = ([u, v]: Pair) => u <= 0 || u >= 1 || v >= 1;
  const beyond = (end: Pair, other: Pair): Pair =>
    isCut(end) ? [end[0] + BEYOND * (end[0] - other[0]), end[1] + BEYOND * (end[1] - other[1])] : end;
  return [beyond(from, to), beyond(to, from)];
}

/** What a person enters for a layout: the walls and things that are seen most. */
function enteredLayout({ name, known: layout, ids }: Layout, fixtures: readonly KnownFixture[]): Entered {
  const shown = (at: Pair) => Math.min(1, Math.max(0, at[0]));
  const walls = layout.walls
    .filter(({ visible }) => visible > SEEN.wall)
    .sort(
      (a, b) =>
        b.height_m * Math.abs(shown(b.to) - shown(b.from)) -
        a.height_m * Math.abs(shown(a.to) - shown(a.from)),
    )
    .slice(0, GESTURES.walls)
    .map(({ from, to, height_m }) => ({ foot: drawnFoot(from, to), height: height_m }));
  const standees = layout.things
    .filter(({ kind, visible_area }) => kind !== 'tree' && visible_area > SEEN.thing)
    .sort((a, b) => b.visible_area - a.visible_area)
    .slice(0, GESTURES.standees)
    .map(({ box, foot, kind }) => ({ loop: roughLoop(ids, box), foot, isBox: BOXES.has(kind) }))
    .filter(({ loop }) => loop.length > 2);
  return {
    plate: name,
    horizon: [layout.horizon.left, layout.horizon.right],
    eyeHeight: layout.eye_height_m,
    lens: layout.focal_mm_35,
    ground: name === 'd06' ? 'wet' : 'dry',
    walls,
    decks: (ROADS[name] ?? []).map((outline) => ({ outline, height: -KERB })),
    standees,
    groups: Object.fromEntries(fixtures.map(({ group }) => [group, { named: [] }])),
  };
}

/** How far behind its glass the lamp of a room hangs where nothing says it, metres. */
const ROOM_DEPTH = 1.25;

/** The hood of a lamp whose shade is seen. */
const HOODED = 0.7;

function depthOf({ style, world, lamp_inside_world: lamp }: KnownFixture): number {
  if (style === 'blind') return 0;
  return lamp ? hypot(lamp[0] - world[0], lamp[1] - world[1]) : ROOM_DEPTH;
}

/** How far along its axis a person aims a headlamp at the ground, metres. */
const AIMED = 6;

/** Where a place of the world is seen. */
function seenAt({ camera, focal_mm_35 }: Layout['known'], place: number[]): Pair {
  const { position, right, up, forward } = camera;
  const away = place.map((value, axis) => value - position[axis]);
  const along = (axis: number[]) => axis.reduce((sum, value, k) => sum + value * away[k], 0);
  const focal = (focal_mm_35 / 36) * TRUTH.width;
  return [
    0.5 + (focal * along(right)) / along(forward) / TRUTH.width,
    0.5 - (focal * along(up)) / along(forward) / TRUTH.height,
  ];
}

function litFixture(known: Layout['known'], fixture: KnownFixture): Fixture {
  const { id, group, lumens, radius, outline, line, kind, axis_world: axis } = fixture;
  const [at, foot] = [placeOf(fixture.centre), placeOf(fixture.foot)];
  const own = { id: `f${id}`, name: `Lamp ${id}`, circuit: group, at, foot, aim: foot, path: [], lumens };
  if (outline) {
    const path = outline.map(placeOf);
    return makeFixture('pane', {
      ...fixtureBasics('pane'),
      ...own,
      path,
      size: 0.003,
      depth: depthOf(fixture),
    });
  }
  if (line) {
    const path = line.filter((_, i) => i % 4 === 0).map(placeOf);
    return makeFixture('tube', { ...fixtureBasics('tube'), ...own, path, size: 0.001, lumens: 100 });
  }
  if (axis) {
    const [x, y, z] = fixture.foot_world;
    const aim = placeOf(seenAt(known, [x + AIMED * axis[0], y + AIMED * axis[1], z]));
    return makeFixture('headlamps', {
      ...fixtureBasics('headlamps'),
      ...own,
      path: [at],
      aim,
      size: radius!,
    });
  }
  return makeFixture('globe', {
    ...fixtureBasics('globe'),
    ...own,
    size: radius!,
    hood: kind === 'goose' ? HOODED : 0,
  });
}

/** A layout whose night is known: what is entered for it, its lamps, and what every pixel of the night shows. */
export async function litLayout(name: string) {
  const layout = await readLayout(name);
  const fixtures = await known(name);
  const ids = await keptIds(join(LAYOUT_ROOT, name, 'truth', 'id.u8.gz'));
  return {
    entered: enteredLayout(layout, fixtures),
    fixtures: fixtures.map((fixture) => litFixture(layout.known, fixture)),
    ids,
    photo: layout.photo,
  };
}
