import fc from 'fast-check';
import { makeFixture } from '../fixture/make-fixture';
import { RANGES } from '../fields/ranges';
import { describe, expect, it } from 'vitest';
import { streetLamp, testCircuit } from '../../../test/street';
import type { RampPass } from '../matte/pass';
import { rampCoverage } from '../matte/ramp-coverage';
import { hourValues } from '../night/hour';
import { cameraOf } from '../picture/camera-of';
import { groundPoint } from '../geometry/ground';
import { standsAhead } from '../plan/surfaces';
import { patchScene, runCommand, type Command } from './command';
import { renameScene, setDesk, setHour, setNight, setPlan } from './commands';
import { addFixture, moveToCircuit, setCircuit, setFixture } from './fixture-commands';
import { removeFixtures } from './many-commands';
import { advance, flip, stacksOf, type LogEntry } from './history';
import { PLAIN_GRADE } from '../night/starting-night';
import { newScene, PLAIN_FINISH, PLAIN_SURFACE } from './new-scene';
import { parseScene } from './parse-scene';
import { MOST_FIXTURES, type Fixture, type Scene } from './schema';

const PLATE = { asset: '0'.repeat(64), width: 1800, height: 1200 };
const blank = newScene('Quay', PLATE);

const circuit = testCircuit;
const globe = (id: string, on: string) => streetLamp(id, 0.5, { circuit: on });
const lit = runCommand(blank, addFixture(globe('one', 'a'), circuit('a'))).scene;
/** The same as a scene from before nights were metered. */
const unmetered: Scene = {
  ...lit,
  plan: { ...lit.plan, mirrors: 0 },
  night: { ...lit.night, meter: 0 },
  sky: { ...lit.sky, from: 'plate' },
  desk: { ...lit.desk, spikes: RANGES.level.min, veil: RANGES.level.min },
};

const COMMANDS: Command[] = [
  renameScene('Other'),
  setHour(0.9),
  setNight('Tint', { tint: 0.2 }),
  setPlan('Lens', { lens: 50 }),
  setDesk('Ambient', { ambient: -1 }),
  addFixture(globe('two', 'a'), circuit('a')),
  addFixture(globe('three', 'b'), circuit('b')),
  setFixture('Power', 'one', { lumens: 800 }),
  setCircuit('Level', 'a', { level: -2 }),
  moveToCircuit('one', circuit('c')),
  removeFixtures(['one']),
];

describe('commands', () => {
  it('give a valid scene, and an inverse that brings back the very same one', () => {
    for (const command of COMMANDS) {
      const { scene, change } = runCommand(lit, command);
      expect(parseScene(scene)).toEqual(scene);
      expect(patchScene(lit, change.patches)).toEqual(scene);
      expect(patchScene(scene, change.inverse)).toEqual(lit);
    }
  });

  it('keep what the person added when the hour moves', () => {
    const brighter = runCommand(blank, setNight('Exposure', { exposure: blank.night.exposure + 0.7 })).scene;
    const later = runCommand(brighter, setHour(1)).scene;
    expect(later.night.exposure).toBeCloseTo(hourValues(1).exposure + 0.7, 6);
    const back = runCommand(later, setHour(blank.night.hour)).scene;
    expect(back.night.exposure).toBeCloseTo(brighter.night.exposure, 6);
    expect(back.night.kelvin).toBeCloseTo(brighter.night.kelvin, 3);
  });

  it('keep every night valid, wherever the hour goes and whatever was added', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -10, max: 2, noNaN: true }),
        fc.double({ min: 1500, max: 20000, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (exposure, kelvin, hour) => {
          const odd = runCommand(blank, setNight('Odd', { exposure, kelvin })).scene;
          expect(() => parseScene(runCommand(odd, setHour(hour)).scene)).not.toThrow();
        },
      ),
    );
  });

  it('drop a circuit with its last fixture', () => {
    expect(runCommand(lit, removeFixtures(['one'])).scene.circuits).toEqual([]);
  });
});

describe('history', () => {
  const entry = (kind: LogEntry['kind'], command: Command, scene: Scene): LogEntry => ({
    id: 'x',
    kind,
    ...runCommand(scene, command).change,
  });

  it('reads done and undone off a log that only grows', () => {
    const first = entry('do', renameScene('B'), blank);
    const second = entry('do', renameScene('C'), { ...blank, title: 'B' });
    const undo: LogEntry = { id: 'u', kind: 'undo', ...flip(second) };
    const stacks = stacksOf([first, second, undo]);
    expect(stacks.done).toHaveLength(1);
    expect(stacks.undone[0].patches).toEqual(second.patches);
    const redone = advance(stacks, { ...stacks.undone[0], id: 'r', kind: 'redo' });
    expect(redone.done).toHaveLength(2);
    expect(redone.undone).toHaveLength(0);
    expect(advance(stacks, first).undone).toHaveLength(0);
  });

  it('bears a log whose beginning is cut off', () => {
    expect(stacksOf([{ id: 'u', kind: 'undo', label: 'x', patches: [], inverse: [] }]).done).toEqual([]);
  });
});

/** A matte of one pass, which need not be right. */
const matteOf = (pass: object) => ({
  id: 'm',
  name: 'M',
  refine: 0,
  grow: 0,
  feather: 0,
  invert: false,
  passes: [{ id: 'p', join: 'add', ...pass }],
});

describe('parseScene', () => {
  const spoil = (change: (scene: Record<string, unknown>) => void) => {
    const copy = structuredClone(lit) as unknown as Record<string, unknown>;
    change(copy);
    return () => parseScene(copy);
  };

  it('takes a scene as it is', () => {
    expect(parseScene(structuredClone(lit))).toEqual(lit);
  });

  it('reads a scene of version 1 as the night that it was', () => {
    const rest: Partial<Scene> = structuredClone(lit);
    delete rest.frame;
    const { hour, exposure, kelvin, tint, saturation, haze } = lit.night;
    const night = { hour, exposure, kelvin, tint, saturation, haze };
    expect(parseScene({ ...rest, version: 1, night })).toEqual({
      ...unmetered,
      night: { ...night, meter: 0, rods: 0, hold: 0, ...PLAIN_GRADE },
    });
  });

  it('keeps the ellipses of version 3 where they were', () => {
    const old = structuredClone(lit) as unknown as Record<string, unknown>;
    const ramp = { kind: 'ramp', shape: 'round', from: { u: 0.5, v: 0.5 }, to: { u: 0.7, v: 0.8 }, soft: 1 };
    const { refine: _refine, grow: _grow, ...matte } = matteOf(ramp);
    const [pass] = parseScene({ ...old, version: 3, mattes: [matte] }).mattes[0].passes as RampPass[];
    const { width, height } = lit.plate;
    for (const [u, v] of [
      [0.69, 0.5],
      [0.71, 0.5],
      [0.5, 0.79],
      [0.5, 0.81],
    ]) {
      const far = Math.hypot((u - 0.5) / 0.2, (v - 0.5) / 0.3);
      expect(rampCoverage(pass, u, v, width / height) > 0).toBe(far < 1);
    }
  });

  it('reads a scene of version 4 as the picture that it was', () => {
    const { moon: _moon, ...rest } = structuredClone(lit);
    const old = {
      ...rest,
      version: 4,
      desk: { ambient: lit.desk.ambient, master: lit.desk.master },
      fixtures: lit.fixtures.map(({ path: _path, ...own }) => own),
      circuits: lit.circuits.map(({ grip: _grip, ...own }) => own),
    };
    expect(parseScene(old)).toEqual(unmetered);
  });

  it('reads a scene of version 6 with surfaces that do not shine and panes that glow themselves', () => {
    const { ground: _ground, ...plan } = structuredClone(lit.plan);
    const {
      sheen: _sheen,
      roughness: _roughness,
      crease: _crease,
      ...wall
    } = {
      ...{
        id: 'w',
        name: 'Wall',
        foot: [
          { u: 0.1, v: 0.8 },
          { u: 0.5, v: 0.7 },
        ],
        height: 3,
      },
      ...PLAIN_SURFACE,
    };
    const { fixtures } = lit;
    const read = parseScene({
      ...structuredClone(lit),
      version: 6,
      plan: { ...plan, walls: [wall] },
      fixtures,
    });
    expect(read).toEqual({
      ...unmetered,
      plan: { ...unmetered.plan, walls: [{ ...wall, ...PLAIN_SURFACE }] },
    });
    const wet = { ...read, plan: { ...read.plan, ground: { ...PLAIN_SURFACE, wet: 'gone' } } };
    expect(() => parseScene(wet)).toThrow('matte that does not exist');
  });

  it('leaves what stood over a deck in version 7 where it stood', () => {
    const outline = [
      { u: 0.3, v: 0.55 },
      { u: 1, v: 0.55 },
      { u: 1, v: 1 },
      { u: 0.3, v: 1 },
    ];
    const deck = { ...{ id: 'd', name: 'Water', outline, height: -1.5 }, ...PLAIN_SURFACE };
    const form = { matte: 'm', roundness: 0, crease: 0, ...PLAIN_FINISH };
    const feet = [
      { u: 0.6, v: 0.7 },
      { u: 0.1, v: 0.7 },
    ];
    const standees = feet.map((foot, i) => ({ id: `s${i}`, name: 'Boat', foot, ...form }));
    const read = parseScene({
      ...structuredClone(lit),
      version: 7,
      mattes: [matteOf({ kind: 'sky' })],
      plan: { ...structuredClone(lit.plan), decks: [deck], standees },
    });
    const camera = cameraOf(read);
    read.plan.standees.forEach((standee, i) => {
      expect(standsAhead(camera, standee, read.plan.decks)).toBeCloseTo(groundPoint(camera, feet[i])[1], 4);
    });
    expect(read.plan.standees[0].foot.v).toBeGreaterThan(0.72);
    expect(read.plan.standees[1].foot).toEqual(feet[1]);
  });

  it.each([
    ['a pane of two corners', 'pane', 2],
    ['a tube of one point', 'tube', 1],
    ['a tube of more points than a scene holds', 'tube', 401],
  ] as const)('refuses %s', (_what, kind, points) => {
    const path = Array.from({ length: points }, () => ({ u: 0.5, v: 0.5 }));
    const fixtures = [makeFixture(kind, { ...lit.fixtures[0], path })];
    expect(() => parseScene({ ...lit, fixtures })).toThrow(
      /a fixture has too few points on its path|fixtures\[0\]\.path/,
    );
  });

  it('takes of a fixture what its kind has, and nothing else', () => {
    const [lamp] = lit.fixtures;
    const refused = (fixture: object) => () => parseScene({ ...lit, fixtures: [fixture] });
    const strand = makeFixture('strand', { ...lamp, path: [lamp.at, lamp.foot] });
    expect(refused(strand)).not.toThrow();
    expect(refused({ ...strand, curtains: 0.5 })).toThrow('unspecified keys: curtains');
    const { sag: _sag, ...without } = strand;
    expect(refused(without)).toThrow('fixtures[0].sag is a required field');
    expect(refused({ ...strand, kind: 'comet' })).toThrow('fixtures[0].kind must be one of');
  });

  it('leaves out of a scene of version 8 what a fixture’s kind does not use', () => {
    const old = lit.fixtures.map((fixture) => ({ ...fixture, bars: 0.5, curtains: 0.5, dead: [], seed: 3 }));
    const sky = matteOf({ kind: 'sky' });
    const mattes = [{ ...sky, passes: ['add', 'cut', 'meet'].map((join) => ({ ...sky.passes[0], join })) }];
    const read = parseScene({ ...lit, version: 8, fixtures: old, mattes });
    expect(read.fixtures[0]).toEqual({ ...lit.fixtures[0], bars: 0.5 });
    expect(read.mattes[0].passes.map(({ join }) => join)).toEqual(['add', 'subtract', 'intersect']);
  });

  it('has nothing said by the brush in a scene of version 10', () => {
    const { strokes: _strokes, ...plan } = lit.plan;
    expect(parseScene({ ...lit, version: 10, plan }).plan).toEqual({ ...unmetered.plan, strokes: [] });
  });

  it('leaves a scene of version 9 as its plate was shot', () => {
    const { meter: _meter, ...night } = lit.night;
    expect(parseScene({ ...lit, version: 9, night }).night).toEqual({ ...lit.night, meter: 0 });
    expect(newScene('New', lit.plate).night.meter).toBe(1);
  });

  it('takes outlines of two points and strokes outside the picture: they cover nothing', () => {
    const scene = structuredClone(lit) as unknown as Record<string, unknown>;
    const two = matteOf({
      kind: 'outline',
      points: [
        { u: 0, v: 0 },
        { u: 1, v: 1 },
      ],
    });
    const outside = { act: 'loop', path: [-2, -2, -1, -2, -1, -1], size: 0.1 };
    scene.mattes = [two, { ...matteOf({ kind: 'edge', strokes: [outside] }), id: 'n' }];
    expect(parseScene(scene).mattes).toHaveLength(2);
  });

  it.each([
    ['nothing', () => parseScene(undefined), 'not a Sundew scene'],
    ['a list', () => parseScene([]), 'not a Sundew scene'],
    ['a newer version', spoil((s) => (s.version = 99)), 'newer Sundew'],
    ['a number out of range', spoil((s) => ((s.night as Scene['night']).exposure = 99)), 'night.exposure'],
    ['not a number', spoil((s) => ((s.plan as Scene['plan']).lens = NaN)), 'plan.lens'],
    [
      'a gel of no temperature',
      spoil((s) => ((s.fixtures as Scene['fixtures'])[0].gel.kelvin = 0)),
      'gel.kelvin',
    ],
    [
      'more fixtures than a scene holds',
      spoil((s) => {
        const [fixture] = s.fixtures as Scene['fixtures'];
        s.fixtures = Array.from({ length: 501 }, (_, k) => ({ ...fixture, id: `l${k}` }));
      }),
      'at most 500 fixtures',
    ],
    ['a lens of zero', spoil((s) => ((s.plan as Scene['plan']).lens = 0)), 'plan.lens'],
    [
      'a place without its matte',
      spoil((s) => (s.places = [{ matte: 'gone', outside: false, stops: 1 }])),
      'matte that does not exist',
    ],
    ['a pass of no kind', spoil((s) => (s.mattes = [matteOf({ kind: 'wand' })])), 'mattes[0].passes[0]'],
    [
      'a pass that lacks what it needs',
      spoil((s) => (s.mattes = [matteOf({ kind: 'tone', low: 0.1 })])),
      'mattes[0].passes[0]',
    ],
    [
      'an outline of too many points',
      spoil((s) => {
        const points = Array.from({ length: 10_000 }, (_, i) => ({ u: i / 10_000, v: 0.5 }));
        s.mattes = [matteOf({ kind: 'outline', points })];
      }),
      'at most 4000 points',
    ],
    [
      'a handle of an outline that is none',
      spoil((s) => (s.mattes = [matteOf({ kind: 'outline', points: [{ u: 0, v: 0, out: { u: 1 } }] })])),
      'mattes[0].passes[0]',
    ],
    [
      'a stroke that breaks off within a place',
      spoil(
        (s) => (s.mattes = [matteOf({ kind: 'edge', strokes: [{ act: 'take', path: [0.5], size: 0.1 }] })]),
      ),
      'not a path of places',
    ],
    [
      'strokes of too many places',
      spoil((s) => {
        const path = Array.from({ length: 3 * 4000 }, () => 0.5);
        const more = { size: 0.1, soft: 0, flow: 1, strength: 1, erase: false, pressure: 'none' };
        s.mattes = [
          matteOf({ kind: 'paint', strokes: Array.from({ length: 8 }, () => ({ path, ...more })) }),
        ];
      }),
      'at most 30000 places',
    ],
    [
      'a matte made of one that is not there',
      spoil((s) => (s.mattes = [matteOf({ kind: 'matte', matte: 'gone' })])),
      'matte that does not exist',
    ],
    [
      'a matte that refers to itself through another',
      spoil((s) => {
        const other = { ...matteOf({ kind: 'matte', matte: 'm' }), id: 'n' };
        s.mattes = [matteOf({ kind: 'matte', matte: 'n' }), other];
      }),
      'refers to itself',
    ],
    [
      'a lamp behind a matte that is not there',
      spoil((s) => ((s.fixtures as Fixture[])[0].behind = 'gone')),
      'matte that does not exist',
    ],
    ['an unknown field', spoil((s) => (s.extra = 1)), 'extra'],
    ['a circuit that is not there', spoil((s) => (s.circuits = [])), 'circuit that does not exist'],
    ['the same id twice', spoil((s) => (s.circuits = [circuit('a'), circuit('a')])), 'same id'],
    [
      'too many fixtures',
      spoil((s) => (s.fixtures = Array.from({ length: MOST_FIXTURES + 1 }, (_, i) => globe(`f${i}`, 'a')))),
      'at most',
    ],
  ])('says what is wrong with %s', (_name, parse, reason) => {
    expect(parse).toThrow(reason);
  });
});
