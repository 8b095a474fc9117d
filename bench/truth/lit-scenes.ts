import { makeFixture, withValues } from '@/core/fixture/make-fixture';
import { kelvinGel } from '@/core/fixture/kelvin-gel';
import { KINDS } from '@/core/fixture/kinds';
import { FINISHES } from '@/core/plan/finishes';
import { newScene, PLAIN_FINISH, plainCircuit, PLAIN_SURFACE } from '@/core/scene/new-scene';
import { outlineRow } from '@/core/geometry/outline-row';
import { wholeRegion } from '@/core/plane/region';
import { boxed } from '@/state/actions/box-actions';
import { sunShadowMatte } from '@/state/actions/matte-actions';
import type { Fixture, GroundPlan, Scene } from '@/core/scene/schema';
import { TRUTH } from './truth-files';

/** A pane drawn by hand: its outline, its foot, lumens. */
interface Drawn {
  outline: [u: number, v: number][];
  foot: [u: number, v: number];
  lumens: number;
}

/** What a person enters for a plate: a handful of numbers, and each lamp with its foot. */
export interface Entered {
  plate: string;
  horizon: [left: number, right: number];
  eyeHeight: number;
  lens: number;
  ground: keyof typeof FINISHES;
  walls: { foot: [u: number, v: number][]; height: number }[];
  decks: { outline: [u: number, v: number][]; height: number }[];
  /** What stands up: rough loops, and where their feet are. */
  standees: { loop: [u: number, v: number][]; foot: [u: number, v: number]; isBox?: boolean }[];
  /** Groups of the truth: fixtures of the plate's notes by name, and what a person lights where the notes have a lamp in a room. */
  groups: Record<string, { named: string[]; panes?: Drawn[] }>;
}

export const ENTERED: Entered[] = [
  {
    plate: 'ferry-steps',
    horizon: [0.51, 0.518],
    eyeHeight: 1.66,
    lens: 28,
    ground: 'damp',
    walls: [
      {
        foot: [
          [-0.5, 0.75],
          [0.212, 0.7275],
          [0.249, 0.681],
        ],
        height: 3,
      },
      {
        foot: [
          [-0.5, 0.755],
          [0.229, 0.556],
        ],
        height: 12,
      },
      {
        foot: [
          [0.11, 0.548],
          [1.5, 0.55],
        ],
        height: 12,
      },
    ],
    decks: [
      {
        outline: [
          [0.43, 0.57],
          [1.0, 0.57],
          [1.0, 0.97],
        ],
        height: -1.2,
      },
    ],
    standees: [
      {
        loop: [
          [0.345, 0.475],
          [0.375, 0.475],
          [0.38, 0.55],
          [0.4, 0.62],
          [0.4, 0.78],
          [0.385, 0.88],
          [0.345, 0.88],
          [0.335, 0.78],
          [0.33, 0.62],
          [0.35, 0.55],
        ],
        foot: [0.365, 0.885],
      },
      {
        loop: [
          [0.267, 0.78],
          [0.324, 0.765],
          [0.326, 0.89],
          [0.27, 0.9],
        ],
        foot: [0.297, 0.9],
      },
      {
        loop: [
          [0.628, 0.565],
          [0.7, 0.51],
          [0.7, 0.485],
          [0.74, 0.485],
          [0.745, 0.51],
          [0.825, 0.515],
          [0.868, 0.58],
          [0.86, 0.625],
          [0.64, 0.635],
        ],
        foot: [0.75, 0.629],
      },
      {
        loop: [
          [0.735, 0.65],
          [0.8, 0.665],
          [0.855, 0.64],
          [0.85, 0.68],
          [0.8, 0.7],
          [0.745, 0.69],
        ],
        foot: [0.795, 0.698],
      },
      {
        loop: [
          [0.815, 0.73],
          [0.85, 0.715],
          [0.918, 0.735],
          [0.905, 0.83],
          [0.88, 0.855],
          [0.83, 0.83],
        ],
        foot: [0.865, 0.848],
      },
    ],
    groups: {
      lamp1: { named: ['lamp_1'] },
      lamp2: { named: ['lamp_2'] },
      lamp3: { named: ['lamp_3'] },
      kiosk: {
        named: [],
        panes: [
          {
            outline: [
              [0.022, 0.45],
              [0.172, 0.455],
              [0.172, 0.6],
              [0.022, 0.605],
            ],
            foot: [0.1, 0.731],
            lumens: 900,
          },
          {
            outline: [
              [0.2151, 0.4674],
              [0.2263, 0.4704],
              [0.2256, 0.5874],
              [0.2142, 0.5927],
            ],
            foot: [0.2203, 0.717],
            lumens: 300,
          },
        ],
      },
      houses: { named: [1, 2, 3, 4, 5, 6, 10, 11, 12, 13, 14].map((n) => `house_blind_${n}`) },
    },
  },
  {
    plate: 'picture-house',
    horizon: [0.635, 0.626],
    eyeHeight: 1.58,
    lens: 28,
    ground: 'damp',
    walls: [
      {
        foot: [
          [0.4005, 0.695],
          [0.5835, 0.758],
          [0.7735, 0.77],
          [1.5, 0.71],
        ],
        height: 9,
      },
      {
        foot: [
          [-0.5, 0.81],
          [0.063, 0.669],
        ],
        height: 8,
      },
    ],
    decks: [
      {
        outline: [
          [0.358, 0.541],
          [0.408, 0.506],
          [0.543, 0.512],
          [0.468, 0.545],
        ],
        height: 3.2,
      },
    ],
    standees: [
      {
        loop: [
          [0.446, 0.12],
          [0.47, 0.085],
          [0.5, 0.085],
          [0.52, 0.12],
          [0.518, 0.43],
          [0.448, 0.43],
        ],
        foot: [0.483, 0.756],
      },
    ],
    groups: {
      canopy_bulbs: { named: Array.from({ length: 10 }, (_, i) => `canopy_bulb_${i + 1}`) },
      canopy_board: { named: ['canopy_board_end', 'canopy_board_front'] },
      neon_word: { named: ['neon_1O', 'neon_2V', 'neon_3L', 'neon_4A', 'neon_4A1'] },
      neon_comet: { named: ['neon_star', 'neon_tail_1', 'neon_tail_2', 'neon_tail_3'] },
      windows: {
        named: [0, 2].map((n) => `upper_front_${n}_blind`).concat([0, 1, 2].map((n) => `tower_${n}_glow`)),
        panes: [
          {
            outline: [
              [0.92, 0.2],
              [0.968, 0.21],
              [0.968, 0.335],
              [0.92, 0.345],
            ],
            foot: [0.944, 0.756],
            lumens: 600,
          },
        ],
      },
      foyer: {
        named: [],
        panes: [
          {
            outline: [
              [0.897, 0.508],
              [1.1, 0.51],
              [1.1, 0.68],
              [0.9, 0.68],
            ],
            foot: [0.97, 0.7545],
            lumens: 1300,
          },
          {
            outline: [
              [0.5, 0.535],
              [0.53, 0.53],
              [0.53, 0.73],
              [0.505, 0.73],
            ],
            foot: [0.515, 0.735],
            lumens: 600,
          },
        ],
      },
    },
  },
];

const place = ([u, v]: [number, number]) => ({ u, v });

/** Kinds of the notes as kinds of fixtures. */
const KIND: Record<string, Fixture['kind']> = {
  lantern: 'globe',
  globe: 'globe',
  window: 'pane',
  sign_panel: 'pane',
  neon_tube: 'tube',
};

/** A fixture as the notes of a plate have it, and as a person with a good eye places it. */
interface Noted {
  name: string;
  kind: string;
  centre: [u: number, v: number];
  foot_point: [u: number, v: number];
  lumens: number;
  radius_fraction_of_width?: number;
  outline?: [u: number, v: number][];
  polyline?: [u: number, v: number][];
  colour_temperature_K?: number;
}

/** What the notes of a plate say of its fixtures. */
export interface Notes {
  fixtures: Noted[];
}

const PLAIN = {
  ...{ shown: 0, spill: 0, bars: 0, barGlow: 0, interior: 0, standOff: 0 },
  gel: kelvinGel(2850),
};

/** What all fixtures of a kind begin with here. */
export function fixtureBasics(kind: Fixture['kind']) {
  const { heart, halo } = KINDS[kind].defaults;
  return { ...PLAIN, heart, halo };
}

function notedFixture(circuit: string, noted: Noted): Fixture {
  const kind = KIND[noted.kind];
  const { lumens } = KINDS[kind].defaults;
  const [at, foot] = [place(noted.centre), place(noted.foot_point)];
  const path = kind === 'globe' ? [] : (noted.outline ?? noted.polyline ?? []).map(place);
  const size = noted.radius_fraction_of_width ?? 0.003;
  const own = { id: noted.name, name: noted.name, circuit, at, foot, aim: foot, path };
  return makeFixture(kind, {
    ...fixtureBasics(kind),
    ...own,
    size,
    lumens: kind === 'tube' ? lumens : noted.lumens,
  });
}

function drawnPane(circuit: string, { outline, foot, lumens }: Drawn, index: number): Fixture {
  const id = `${circuit}-pane-${index}`;
  const middle = (c: 0 | 1) => outline.reduce((sum, corner) => sum + corner[c], 0) / outline.length;
  const noted = {
    name: id,
    kind: 'window',
    centre: [middle(0), middle(1)],
    foot_point: foot,
    lumens,
    outline,
  };
  // Clear glass, with a lamp behind it; the notes' own windows have blinds.
  return withValues(notedFixture(circuit, noted as Noted), { depth: 1.5 });
}

/** The fixtures of a plate's groups, one circuit each, named after the group. */
export function litFixtures({ groups }: Entered, notes: Notes): Fixture[] {
  return Object.entries(groups).flatMap(([circuit, { named, panes = [] }]) => [
    ...named.map((name) =>
      notedFixture(
        circuit,
        notes.fixtures.find((noted) => noted.name === name)!,
      ),
    ),
    ...panes.map((pane, index) => drawnPane(circuit, pane, index)),
  ]);
}

/** How much of the day is taken out of the plate: its shading, and the sun's own shadow. */
export interface DayTaken {
  evenOut: number;
  lift: number;
}

/** What a loop encloses, on a small copy. */
function covered(loop: [u: number, v: number][]) {
  const region = wholeRegion(TRUTH.width, TRUTH.height);
  const [row, data] = [new Float32Array(region.width), new Uint8Array(region.width * region.height)];
  for (let y = 0; y < region.height; y++) {
    outlineRow(row, loop.map(place), region, y);
    row.forEach((share, x) => (data[y * region.width + x] = Math.round(255 * share)));
  }
  return { width: region.width, height: region.height, data };
}

/** A scene with one circuit a group, named after it. Nothing of the night dims or tints its lamps. */
export function enteredScene(
  entered: Entered,
  fixtures: Fixture[],
  plate: Scene['plate'],
  { evenOut, lift }: DayTaken,
): Scene {
  const { horizon, eyeHeight, lens, ground, walls, decks, standees, groups } = entered;
  const scene = newScene(entered.plate, plate, lens);
  const plan: GroundPlan = {
    horizon: { left: horizon[0], right: horizon[1] },
    eyeHeight,
    lens,
    mirrors: 1,
    ground: { ...FINISHES[ground] },
    walls: walls.map(({ foot, height }, i) => ({
      id: `w${i}`,
      name: `Wall ${i}`,
      foot: foot.map(place),
      height,
      ...PLAIN_SURFACE,
    })),
    glosses: [],
    strokes: [],
    standees: standees.map(({ foot }, i) => ({
      ...{ id: `s${i}`, name: `Standee ${i}`, matte: `m${i}`, foot: place(foot) },
      ...{ roundness: 0.5, crease: 0.3, ...PLAIN_FINISH },
    })),
    decks: decks.map(({ outline, height }, i) => ({
      id: `d${i}`,
      name: `Deck ${i}`,
      outline: outline.map(place),
      height,
      // What lies deeper than a kerb is water.
      ...(height < -0.5 ? FINISHES.water : PLAIN_SURFACE),
    })),
  };
  const circuits = Object.keys(groups).map((id) => plainCircuit(id, id));
  const mattes = standees.map(({ loop }, i): Scene['mattes'][number] => ({
    ...{ id: `m${i}`, name: `Matte ${i}`, feather: 0, refine: 0, grow: 0, invert: false },
    passes: [{ id: 'loop', kind: 'outline', join: 'add', points: loop.map(place) }],
  }));
  standees.forEach(({ loop, isBox }, i) => {
    if (isBox) Object.assign(plan.standees[i], boxed({ plan, plate }, plan.standees[i], covered(loop)));
  });
  const own = { ...scene, mattes, plan };
  if (lift > 0) {
    const shadow = sunShadowMatte(own);
    mattes.push(shadow);
    plan.sunShadow = { matte: shadow.id, lift };
  }
  return { ...scene, mattes, night: { ...scene.night, evenOut }, plan, fixtures, circuits };
}
