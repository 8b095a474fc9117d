import { FIXTURE_KINDS, kelvinGel } from '@/core/fixture/defaults';
import { newScene } from '@/core/scene/new-scene';
import type { Circuit, Fixture, GroundPlan, Scene } from '@/core/scene/schema';

/** What a person enters for a plate: a handful of numbers, and each lamp with its foot. */
interface Entered {
  plate: string;
  horizon: [left: number, right: number];
  eyeHeight: number;
  lens: number;
  walls: { foot: [u: number, v: number][]; height: number }[];
  decks: { outline: [u: number, v: number][]; height: number }[];
  /** Groups of the truth: lamps as place, foot, radius, lumens. */
  groups: Record<
    string,
    [u: number, v: number, footU: number, footV: number, size: number, lumens: number][]
  >;
}

export const ENTERED: Entered[] = [
  {
    plate: 'ferry-steps',
    horizon: [0.51, 0.518],
    eyeHeight: 1.66,
    lens: 28,
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
    groups: {
      lamp1: [[0.5534, 0.266, 0.552, 0.7465, 0.0116, 3000]],
      lamp2: [[0.486, 0.3643, 0.4849, 0.6535, 0.007, 3000]],
      lamp3: [[0.4554, 0.4088, 0.4546, 0.6116, 0.0051, 3000]],
    },
  },
  {
    plate: 'picture-house',
    horizon: [0.635, 0.626],
    eyeHeight: 1.58,
    lens: 28,
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
    decks: [],
    groups: {
      canopy_bulbs: [
        [0.4347, 0.5199, 0.4342, 0.7562, 0.003, 420],
        [0.4951, 0.5223, 0.496, 0.7522, 0.003, 420],
        [0.4208, 0.5274, 0.42, 0.7479, 0.0028, 420],
        [0.4776, 0.5295, 0.478, 0.7444, 0.0027, 420],
        [0.4085, 0.534, 0.4075, 0.7407, 0.0026, 420],
        [0.4622, 0.5358, 0.4623, 0.7376, 0.0025, 420],
        [0.3977, 0.5398, 0.3966, 0.7343, 0.0025, 420],
        [0.4486, 0.5414, 0.4484, 0.7315, 0.0024, 420],
        [0.3881, 0.545, 0.3868, 0.7286, 0.0023, 420],
        [0.4364, 0.5463, 0.436, 0.7261, 0.0023, 420],
      ],
    },
  },
];

const place = ([u, v]: [number, number]) => ({ u, v });

/** A scene with one circuit a group, named after it. Nothing of the night dims or tints its lamps. */
export function enteredScene(entered: Entered, plate: Scene['plate'], evenOut: number): Scene {
  const { horizon, eyeHeight, lens, walls, decks, groups } = entered;
  const scene = newScene(entered.plate, plate, lens);
  const plan: GroundPlan = {
    horizon: { left: horizon[0], right: horizon[1] },
    eyeHeight,
    lens,
    walls: walls.map(({ foot, height }, i) => ({
      id: `w${i}`,
      name: `Wall ${i}`,
      foot: foot.map(place),
      height,
    })),
    standees: [],
    decks: decks.map(({ outline, height }, i) => ({
      id: `d${i}`,
      name: `Deck ${i}`,
      outline: outline.map(place),
      height,
    })),
  };
  const { heart, halo } = FIXTURE_KINDS.globe;
  const fixtures = Object.entries(groups).flatMap(([circuit, lamps]) =>
    lamps.map(([u, v, footU, footV, size, lumens], i): Fixture => ({
      id: `${circuit}-${i}`,
      kind: 'globe',
      name: `${circuit} ${i}`,
      circuit,
      at: { u, v },
      foot: { u: footU, v: footV },
      size,
      gel: kelvinGel(2850),
      lumens,
      heart,
      halo,
      spill: 0,
      bars: 0,
      barGlow: 0,
    })),
  );
  const circuits = Object.keys(groups).map((id): Circuit => ({
    id,
    name: id,
    level: 0,
    lampLevel: 0,
    spillLevel: 0,
    muted: false,
    solo: false,
  }));
  return { ...scene, night: { ...scene.night, evenOut }, plan, fixtures, circuits };
}
