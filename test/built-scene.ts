import { RANGES } from '@/core/fields/ranges';
import { PLAIN_SURFACE } from '@/core/scene/new-scene';
import type { Scene } from '@/core/scene/schema';
import { half } from './spy-renderer';
import { streetLamp, streetScene, testCircuit } from './street';

/** A scene with a wall, a deck over it, a standee and a lamp of every kind, through a lens. */
export function builtScene(finish = PLAIN_SURFACE as Scene['plan']['ground']): Scene {
  const { crease, ...shine } = finish;
  const place = (u: number, v: number) => ({ u, v });
  const wall = {
    id: 'w',
    name: 'Wall',
    foot: [place(0.1, 0.68), place(0.9, 0.66)],
    height: 2.5,
    ...finish,
  };
  const outline = [place(0.3, 0.3), place(0.6, 0.3), place(0.55, 0.36), place(0.35, 0.36)];
  const standee = {
    ...{ id: 's', name: 'Half', matte: 'half', foot: place(0.25, 0.85) },
    ...{ roundness: 0.6, crease: 0.5 + crease / 2, ...shine },
  };
  const square = [place(0.4, 0.5), place(0.5, 0.5), place(0.5, 0.56), place(0.4, 0.56)];
  const way = [place(0.6, 0.5), place(0.7, 0.52), place(0.75, 0.5)];
  const base = streetScene([
    streetLamp('globe', 0.5, { foot: place(0.5, 0.72) }),
    streetLamp('pane', 0.45, {
      kind: 'pane',
      path: square,
      at: place(0.45, 0.53),
      foot: place(0.45, 0.67),
    }),
    streetLamp('tube', 0.7, {
      kind: 'tube',
      path: way,
      foot: place(0.68, 0.665),
      size: 0.003,
      lumens: 400,
    }),
    streetLamp('side', 1.4, { kind: 'offstage' }),
    streetLamp('car', 0.3, {
      kind: 'headlamps',
      path: [place(0.28, 0.62), place(0.34, 0.62)],
      foot: place(0.31, 0.66),
      aim: place(0.6, 0.9),
      lumens: 600,
    }),
    streetLamp('lantern', 0.2, { kind: 'lantern', bars: 0.8, lumens: 900 }),
    streetLamp('bulb', 0.36, {
      kind: 'filament',
      path: [place(0.35, 0.36), place(0.36, 0.33), place(0.37, 0.36)],
      ...{ size: 0.02, lumens: 400, breaks: [] },
    }),
    streetLamp('sign', 0.2, { kind: 'glow', path: square, foot: place(0.45, 0.67), low: 0.3 }),
    streetLamp('fire', 0.8, { kind: 'fire', at: place(0.8, 0.66), foot: place(0.8, 0.7), seed: 3 }),
    streetLamp('strand', 0.5, {
      kind: 'strand',
      path: [place(0.2, 0.25), place(0.8, 0.25)],
      ...{ lumens: 25, count: 12, sag: 0.1, size: 0.003 },
    }),
  ]);
  return {
    ...base,
    mattes: [half],
    plan: {
      ...base.plan,
      ground: finish,
      walls: [{ ...wall, dayShade: 1 }],
      decks: [{ ...{ id: 'd', name: 'Awning', outline, height: 2.4 }, ...finish }],
      standees: [standee],
      sunShadow: { matte: 'half', lift: 0.5 },
    },
    desk: { ...base.desk, sky: -1.5, moon: 0, haze: 1, spikes: 1, veil: 0.5 },
    lens: {
      ...base.lens,
      tint: 0.3,
      points: [
        { id: 'weak', at: place(0.5, 0.35), stops: -1 },
        { id: 'none', at: place(0.2, 0.35), stops: RANGES.level.min },
        { id: 'added', at: place(0.45, 0.53), stops: 1 },
      ],
      grain: { ...base.lens.grain, iso: 1600, size: 6 },
    },
    circuits: [testCircuit('street', { grip: { dark: 0.2, bright: 0.7, darkShare: 0.3, brightShare: 1.4 } })],
  };
}
