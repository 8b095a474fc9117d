import { createCamera, project, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { standsOn, type Deck } from '../plan/surfaces';
import { WHOLE_FRAME } from '../frame/frame';
import { PLAIN_GRADE } from '../night/starting-night';
import { FIRST_MOON, PLAIN_FINISH, PLAIN_GRIP, PLAIN_SURFACE } from './new-scene';
import { FIRST_LENS } from '../lens/lens-schema';
import { FIRST_SKY } from '../sky/sky-schema';
import { RANGES } from '../fields/ranges';

/** A document of any version, as it was written. */
interface Versioned {
  version?: unknown;
  frame?: object;
  mattes?: object[];
  places?: object[];
  night?: object;
  plate?: { width: number; height: number };
  plan?: OldPlan;
  fixtures?: object[];
  circuits?: object[];
  desk?: object;
  cues?: { circuits: object[] }[];
}

type OldPlan = Partial<Record<'walls' | 'standees' | 'decks', object[]>>;

interface OldRamp {
  kind: string;
  shape?: string;
  from: { u: number; v: number };
  to: { u: number; v: number };
}

/** An ellipse whose end was the corner of its half axes, as one with an end on its level axis. */
function tiltable(pass: OldRamp, aspect: number): object {
  if (pass.kind !== 'ramp') return pass;
  const [u, v] = [Math.abs(pass.to.u - pass.from.u), Math.abs(pass.to.v - pass.from.v)];
  if (pass.shape !== 'round') return { ...pass, breadth: 1 };
  const breadth = Math.min(50, Math.max(0.02, v / aspect / Math.max(u, 1e-6)));
  return { ...pass, to: { u: pass.from.u + u, v: pass.from.v }, breadth };
}

/** What version 6 gave fixtures of all kinds. */
const PLAIN_IN_6 = {
  ...{ shown: 0, depth: 0, seed: 0, vary: 0, unlit: 0, curtains: 0, count: 0, sag: 0 },
  ...{ breaks: [], dead: [] },
};

/** Settings that up to version 8 all fixtures had, and the kinds that keep them. */
const KEPT_IN_9: Record<string, readonly string[]> = {
  ...{ bars: ['globe', 'lantern'], barGlow: ['globe', 'lantern'] },
  ...{ depth: ['pane'], interior: ['pane'], curtains: ['pane'], vary: ['pane'], unlit: ['pane'] },
  ...{ seed: ['pane', 'fire'], standOff: ['tube'], breaks: ['tube'], dead: ['tube'] },
  ...{ count: ['strand'], sag: ['strand'] },
};

/** How passes were joined up to version 8, and how that is called since. */
const JOINS_IN_9: Record<string, string> = { cut: 'subtract', meet: 'intersect' };

function rejoined(matte: object): object {
  const { passes } = matte as { passes: { join: string }[] };
  return { ...matte, passes: passes.map((pass) => ({ ...pass, join: JOINS_IN_9[pass.join] ?? pass.join })) };
}

/** A fixture without the settings that its kind does not use. */
function ofItsKind(fixture: object): object {
  const { kind } = fixture as { kind: string };
  return Object.fromEntries(
    Object.entries(fixture).filter(([name]) => KEPT_IN_9[name]?.includes(kind) ?? true),
  );
}

/** Faders of a lens that adds nothing. */
const NO_LENS = { spikes: RANGES.level.min, veil: RANGES.level.min };

/** Turns a document of a version into one of the next. */
const STEPS: Record<number, (old: Versioned) => Versioned> = {
  // 2 added rod vision and the hold on highlights. Off, they leave an older night as it was.
  1: (old) => ({ ...old, version: 2, night: { ...old.night, rods: 0, hold: 0 } }),
  // 3 added the frame, mattes, and all that shapes the night beyond its light. Plain, they leave a picture as it was.
  2: (old) => ({
    ...old,
    version: 3,
    frame: { ...WHOLE_FRAME, ratio: 0 },
    mattes: [],
    places: [],
    night: { ...old.night, ...PLAIN_GRADE },
  }),
  // 4 added ellipses that tilt, edges of mattes that are refined and moved, what stands in front of a lamp, and surfaces.
  3: (old) => ({
    ...old,
    version: 4,
    ...(old.plan && { plan: { ...old.plan, walls: [], standees: [], decks: [] } }),
    ...(old.mattes && {
      mattes: old.mattes.map((matte) => ({
        ...matte,
        refine: 0,
        grow: 0,
        passes: (matte as { passes: OldRamp[] }).passes.map((pass) =>
          tiltable(pass, (old.plate?.width ?? 1) / (old.plate?.height ?? 1)),
        ),
      })),
    }),
    ...(old.fixtures && {
      fixtures: old.fixtures.map((fixture) => ({ ...fixture, bars: 0, barGlow: 0.4 })),
    }),
  }),
  // 5 added cues, panes, tubes and lights offstage, grips, the moon, and standees that are round and creased. At rest, they change nothing.
  4: (old) => ({
    ...old,
    version: 5,
    ...(old.plan && {
      plan: {
        ...old.plan,
        ...(old.plan.standees && {
          standees: old.plan.standees.map((standee) => ({ ...standee, roundness: 0, crease: 0 })),
        }),
      },
    }),
    ...(old.fixtures && {
      fixtures: old.fixtures.map((fixture) => ({ ...fixture, path: [], interior: 0.4, standOff: 0.05 })),
    }),
    ...(old.circuits && {
      circuits: old.circuits.map((circuit) => ({ ...circuit, grip: { ...PLAIN_GRIP } })),
    }),
    cues: [],
    moon: { ...FIRST_MOON },
    ...(old.desk && { desk: { ...old.desk, moon: RANGES.level.min } }),
  }),
  // 6 added lanterns, vehicle lamps, strands and fires, panes that differ, tubes of pieces, warmth, and faders of sky and haze.
  5: (old) => ({
    ...old,
    version: 6,
    ...(old.fixtures && {
      fixtures: old.fixtures.map((fixture) => ({
        ...fixture,
        aim: { ...(fixture as { foot: object }).foot },
        ...PLAIN_IN_6,
      })),
    }),
    ...(old.circuits && { circuits: old.circuits.map((circuit) => ({ ...circuit, warmth: 0 })) }),
    ...(old.cues && {
      cues: old.cues.map((cue) => ({
        ...cue,
        sky: 0,
        haze: 0,
        circuits: cue.circuits.map((circuit) => ({ ...circuit, warmth: 0 })),
      })),
    }),
    ...(old.desk && { desk: { ...old.desk, sky: 0, haze: 0 } }),
  }),
  // 7 added surfaces that shine and lamps behind clear panes. Dull, and with glass that glows, they are as they were.
  6: (old) => ({
    ...old,
    version: 7,
    ...(old.fixtures && { fixtures: old.fixtures.map((fixture) => ({ ...fixture, depth: 0 })) }),
    ...(old.plan && {
      plan: {
        ...old.plan,
        ground: { ...PLAIN_SURFACE },
        ...(old.plan.walls && { walls: old.plan.walls.map((wall) => ({ ...wall, ...PLAIN_SURFACE })) }),
        ...(old.plan.decks && { decks: old.plan.decks.map((deck) => ({ ...deck, ...PLAIN_SURFACE })) }),
        ...(old.plan.standees && {
          standees: old.plan.standees.map((standee) => ({ ...standee, ...PLAIN_FINISH })),
        }),
      },
    }),
  }),
  // 8 has the feet of standees on the deck that is seen there. They were read on the ground, so they move to where the deck is as far.
  7: (old) => ({
    ...old,
    version: 8,
    ...(old.plan?.standees && { plan: { ...old.plan, standees: old.plan.standees.map(onDeck(old)) } }),
  }),
  // 9 has only those settings of a fixture that its kind uses, as the others never showed, and new words for how passes are joined.
  8: (old) => ({
    ...old,
    version: 9,
    ...(old.fixtures && { fixtures: old.fixtures.map(ofItsKind) }),
    ...(old.mattes && { mattes: old.mattes.map(rejoined) }),
  }),
  // 10 meters nights on the land. Older ones took the plate as it was shot.
  9: (old) => ({ ...old, version: 10, ...(old.night && { night: { ...old.night, meter: 0 } }) }),
  // 11 added strokes that say what a place is.
  10: (old) => ({ ...old, version: 11, ...(old.plan && { plan: { ...old.plan, strokes: [] } }) }),
  // 12 added the sky. Older scenes keep their plate's own.
  11: (old) => ({
    ...old,
    version: 12,
    sky: { ...structuredClone(FIRST_SKY), from: 'plate' },
    ...(old.desk && { desk: { ...old.desk, stars: 0 } }),
    ...(old.cues && { cues: old.cues.map((cue) => ({ ...cue, stars: 0 })) }),
  }),
  // 13 added the lens. Older scenes were seen without one.
  12: (old) => ({
    ...old,
    version: 13,
    lens: structuredClone(FIRST_LENS),
    ...(old.desk && { desk: { ...old.desk, ...NO_LENS } }),
    ...(old.cues && { cues: old.cues.map((cue) => ({ ...cue, ...NO_LENS })) }),
  }),
  // 14 added light that is laid on by hand, and drifts.
  13: (old) => ({ ...old, version: 14, touches: [], drifts: [] }),
  // 15 added placed pictures, and loops of a glow key of which all glows, and mirrors. Older scenes were seen without.
  14: (old) => ({
    ...old,
    version: 15,
    placed: [],
    ...(old.plan && { plan: { ...old.plan, mirrors: 0 } }),
    ...(old.fixtures && { fixtures: old.fixtures.map(withMissed) }),
  }),
  // 16 added hoods over globes, and the walls of rooms behind panes. Older ones shine as they did.
  15: (old) => ({
    ...old,
    version: 16,
    ...(old.fixtures && { fixtures: old.fixtures.map(withHood) }),
  }),
  // 17 added mattes that shine with a turn and a lean of their own.
  16: (old) => ({ ...old, version: 17, ...(old.plan && { plan: { ...old.plan, glosses: [] } }) }),
};

function withHood(fixture: object): object {
  const { kind } = fixture as { kind?: string };
  return kind === 'globe' ? { ...fixture, hood: 0 } : kind === 'pane' ? { ...fixture, room: 0 } : fixture;
}

const withMissed = (fixture: object) =>
  (fixture as { kind?: string }).kind === 'glow' ? { ...fixture, missed: [] } : fixture;

/** Moves the foot of a standee from the ground to the deck that is seen there, as far off. */
function onDeck({ plan, plate }: Versioned) {
  const { decks = [], ...rest } = plan!;
  const camera = createCamera(rest as Parameters<typeof createCamera>[0], plate!.width / plate!.height);
  return (standee: object) => {
    const { foot } = standee as { foot: PlatePoint };
    const [, , height] = standsOn(camera, foot, decks as Deck[]);
    const [x, y] = groundPoint(camera, foot);
    const moved = height !== 0 && project(camera, [x, y, height]);
    return moved ? { ...standee, foot: { u: moved.u, v: moved.v } } : standee;
  };
}

/** An older document as the newest version; a newest one as it is. It is not checked. */
export function upgradeScene<T extends object>(document: T): T {
  let now: Versioned = document;
  while (typeof now.version === 'number' && STEPS[now.version]) now = STEPS[now.version](now);
  return now as T;
}
