import { clampTo, RANGES } from '../fields/ranges';
import { MOST_STROKE } from '../fields/path';
import type { OutlinePoint } from '../geometry/flatten-outline';
import type { PlatePoint } from '../geometry/camera';
import type { PlaceMap } from '../geometry/place-map';
import type { Pass } from '../matte/pass';
import type { Fixture, Scene } from './schema';

/* A scene's document with every place of its plate where another plate shows the same. */

const MIDDLE: PlatePoint = { u: 0.5, v: 0.5 };

/** A full frame's width, millimetres. */
const FILM = 36;

/** A path of u, v and what follows them, `stride` numbers each. */
function movedPath({ place }: PlaceMap, path: readonly number[], stride: number): number[] {
  const out = path.slice(0, stride * MOST_STROKE);
  for (let k = 0; k + 1 < out.length; k += stride) {
    const { u, v } = place({ u: out[k], v: out[k + 1] });
    [out[k], out[k + 1]] = [u, v];
  }
  return out;
}

/** Strokes, as broad as what they run over. */
const movedStrokes = <Stroke extends { path: number[]; size: number }>(
  map: PlaceMap,
  strokes: readonly Stroke[],
  stride: number,
): Stroke[] =>
  strokes.map((stroke) => {
    const first = { u: stroke.path[0] ?? 0.5, v: stroke.path[1] ?? 0.5 };
    const size = clampTo(stroke.size * map.times(first), RANGES.brush);
    return { ...stroke, path: movedPath(map, stroke.path, stride), size };
  });

/** A point of an outline with the handles of its curve, which are offsets from it. */
function movedPoint({ place }: PlaceMap, { u, v, in: before, out: after }: OutlinePoint): OutlinePoint {
  const at = place({ u, v });
  const handle = (offset: PlatePoint | undefined) => {
    if (!offset) return undefined;
    const end = place({ u: u + offset.u, v: v + offset.v });
    return { u: end.u - at.u, v: end.v - at.v };
  };
  return { ...at, ...(before && { in: handle(before) }), ...(after && { out: handle(after) }) };
}

/** A pass; what an edge brush found is left behind with the plate on which it did. */
function movedPass(map: PlaceMap, pass: Pass): Pass {
  switch (pass.kind) {
    case 'outline':
      return { ...pass, points: pass.points.map((point) => movedPoint(map, point)) };
    case 'edge':
      return { ...pass, strokes: movedStrokes(map, pass.strokes, 2), asset: undefined };
    case 'paint':
      return { ...pass, strokes: movedStrokes(map, pass.strokes, 3) };
    case 'area':
      return { ...pass, at: map.place(pass.at) };
    case 'ramp':
      return { ...pass, from: map.place(pass.from), to: map.place(pass.to) };
    default:
      return pass;
  }
}

/** The pool of light outside of which the night sinks. */
function movedSurround({ place, times }: PlaceMap, surround: Scene['night']['surround']) {
  const { at, across, down } = surround;
  const size = (axis: number) => clampTo(axis * times(at), RANGES.poolSize);
  return { ...surround, at: place(at), across: size(across), down: size(down) };
}

function movedMatte(map: PlaceMap, matte: Scene['mattes'][number]): Scene['mattes'][number] {
  const times = map.times(MIDDLE);
  const { passes, refine, grow, feather } = matte;
  return {
    ...matte,
    passes: passes.map((pass) => movedPass(map, pass)),
    refine: clampTo(refine * times, RANGES.refine),
    grow: clampTo(grow * times, RANGES.grow),
    feather: clampTo(feather * times, RANGES.feather),
  };
}

/** The horizon through where two places of it are seen. */
function movedHorizon({ place }: PlaceMap, { left, right }: Scene['plan']['horizon']) {
  const [a, b] = [0.25, 0.75].map((u) => place({ u, v: left + u * (right - left) }));
  const rise = (b.v - a.v) / Math.max(1e-3, b.u - a.u);
  const at = (u: number) => clampTo(a.v + rise * (u - a.u), RANGES.horizon);
  return { left: at(0), right: at(1) };
}

const tenths = (value: number) => Math.round(10 * value) / 10;

function movedPlan(map: PlaceMap, plan: Scene['plan'], turn: number): Scene['plan'] {
  const { place } = map;
  return {
    ...plan,
    horizon: movedHorizon(map, plan.horizon),
    lens: clampTo(tenths(plan.lens * map.times(MIDDLE)), RANGES.lens),
    walls: plan.walls.map((wall) => ({ ...wall, foot: wall.foot.map(place) })),
    standees: plan.standees.map((standee) => ({
      ...standee,
      foot: place(standee.foot),
      ...(standee.box && {
        box: { ...standee.box, left: place(standee.box.left), right: place(standee.box.right) },
      }),
    })),
    decks: plan.decks.map((deck) => ({ ...deck, outline: deck.outline.map(place) })),
    // Something turned to the right by the eye's turn faces as far to the left of it.
    glosses: plan.glosses.map((gloss) => ({ ...gloss, turn: clampTo(gloss.turn - turn, RANGES.glossTurn) })),
    strokes: movedStrokes(map, plan.strokes, 2),
  };
}

const movedFixture = ({ place, times }: PlaceMap, fixture: Fixture): Fixture => ({
  ...fixture,
  ...{ at: place(fixture.at), foot: place(fixture.foot), aim: place(fixture.aim) },
  path: fixture.path.map(place),
  size: clampTo(fixture.size * times(fixture.at), RANGES.size),
});

/** How many degrees farther to the right things are seen from the eye: it has turned that far to the left. */
function turnOf({ place, times }: PlaceMap, lens: number): number {
  const away = (u: number, focal: number) => Math.atan(((u - 0.5) * FILM) / focal);
  return ((away(place(MIDDLE).u, lens * times(MIDDLE)) - away(0.5, lens)) * 180) / Math.PI;
}

/** An angle from -180 to 180 degrees, or from 0 to 360 where its range says so. */
function turned(angle: number, by: number, range: { min: number; max: number }): number {
  const full = ((((angle + by - range.min) % 360) + 360) % 360) + range.min;
  return clampTo(full, range);
}

function movedSky(map: PlaceMap, sky: Scene['sky'], turn: number): Scene['sky'] {
  const { picture, stars, when } = sky;
  return {
    ...sky,
    sun: turned(sky.sun, turn, RANGES.azimuth),
    stars: { ...stars, fall: { ...stars.fall, at: map.place(stars.fall.at) } },
    picture: picture && {
      ...picture,
      at: map.place(picture.at),
      across: clampTo(picture.across * map.times(picture.at), RANGES.skyAcross),
    },
    when: { ...when, bearing: turned(when.bearing, -turn, RANGES.compass) },
  };
}

/**
 * A scene whose every place is moved by a map, with sizes that are told in widths of the plate, horizon, lens, and what is told
 * by where the eye looks. Its title, plate and frame stay. What edge brushes found has to be found again.
 */
export function mapPlaces(scene: Scene, map: PlaceMap): Scene {
  const { place, times } = map;
  const turn = turnOf(map, scene.plan.lens);
  return {
    ...scene,
    night: { ...scene.night, surround: movedSurround(map, scene.night.surround) },
    mattes: scene.mattes.map((matte) => movedMatte(map, matte)),
    plan: movedPlan(map, scene.plan, turn),
    fixtures: scene.fixtures.map((fixture) => movedFixture(map, fixture)),
    touches: scene.touches.map((touch) => ({ ...touch, strokes: movedStrokes(map, touch.strokes, 3) })),
    placed: scene.placed.map((placed) => ({
      ...placed,
      foot: place(placed.foot),
      soft: clampTo(placed.soft * times(placed.foot), RANGES.placedSoft),
    })),
    drifts: scene.drifts.map((drift) => ({
      ...drift,
      ...{ at: place(drift.at), foot: place(drift.foot) },
      size: clampTo(drift.size * times(drift.at), RANGES.driftSize),
    })),
    sky: movedSky(map, scene.sky, turn),
    moon: { ...scene.moon, azimuth: turned(scene.moon.azimuth, turn, RANGES.azimuth) },
    lens: { ...scene.lens, points: scene.lens.points.map((point) => ({ ...point, at: place(point.at) })) },
  };
}
