import fc from 'fast-check';
import { expect, it } from 'vitest';
import { PatchError, patchScene } from '@/core/scene/command';
import { checkedScene, SceneFormatError } from '@/core/scene/parse-scene';
import { FIRST_DRIFT } from '@/core/drift/drift-schema';
import type { Scene } from '@/core/scene/schema';
import { builtScene } from '../../test/built-scene';
import { testPlaced } from '../../test/placed';
import { testTouch } from '../../test/touches';
import { half, largestDifference, show, spyRenderer } from '../../test/spy-renderer';
import { wholeRegion } from '@/core/plane/region';

/** Most changes of one engine, and how many engines are tried; more with PROPERTY_RUNS. */
const CHANGES = 6;
const ENGINES = Math.max(3, Number(process.env.PROPERTY_RUNS ?? 0) / 10);

/** Everything that a scene can hold, so that every stage has something to do. */
const SCENE: Scene = checkedScene({
  ...builtScene(),
  mattes: [
    { ...half, feather: 0.02, refine: 0.004 },
    {
      ...half,
      id: 'grown',
      grow: 0.01,
      invert: true,
      passes: [{ id: 'm', join: 'add', kind: 'matte', matte: 'half' }],
    },
  ],
  lens: { ...builtScene().lens, within: 'grown' },
  touches: [
    testTouch('on', { toward: 'globe', only: { matte: 'grown', outside: false } }),
    testTouch('in', { does: 'air' }),
    testTouch('up', { does: 'lift', circuit: undefined }),
  ],
  drifts: [
    { ...FIRST_DRIFT, id: 'near', name: 'Near', at: { u: 0.4, v: 0.6 }, foot: { u: 0.4, v: 0.8 } },
    { ...FIRST_DRIFT, id: 'far', name: 'Far', at: { u: 0.6, v: 0.5 }, foot: { u: 0.6, v: 0.66 } },
  ],
  placed: [
    testPlaced('standing', { contact: 0.8, roundness: 0.5, behind: 'half', soft: 0.004, crease: 0.2 }),
    testPlaced('cut', {
      ...{ foot: { u: 0.7, v: 0.7 }, turn: 20, lean: 4, grain: 800, sheen: 0.3, alpha: 'b'.repeat(64) },
      cut: { passes: half.passes, refine: 0.01, grow: 0, feather: 0.004 },
    }),
  ],
  places: [{ matte: 'grown', outside: false, stops: -1 }],
});

/** Small, since much is made anew for each change. */
const SMALL = wholeRegion(96, 64);

type Path = (string | number)[];

/** Paths to all numbers and yes-or-noes of a value; what names things is not among them. */
function leavesOf(value: unknown, path: Path = []): Path[] {
  if (typeof value === 'number' || typeof value === 'boolean') return [path];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, part]) =>
    key === 'plate' || key === 'version'
      ? []
      : leavesOf(part, [...path, Array.isArray(value) ? Number(key) : key]),
  );
}

const at = (scene: Scene, path: Path): unknown =>
  path.reduce<unknown>((value, step) => (value as Record<string | number, unknown>)[step], scene);

/** Parts of a scene that a frame depends on; those that hold most come more often. */
const PARTS = [
  'night',
  'mattes',
  'places',
  'plan',
  'plan',
  'plan',
  'fixtures',
  'fixtures',
  'circuits',
  'moon',
  'desk',
  'lens',
  'touches',
  'drifts',
  'placed',
  'placed',
];

interface Change {
  part: string;
  leaf: number;
  by: number;
}

/** A scene with one leaf changed; as it was where that would not be a scene. */
function changed(scene: Scene, { part, leaf, by }: Change): Scene {
  const leaves = leavesOf(scene).filter(([first]) => first === part);
  const path = leaves[leaf % leaves.length];
  const was = at(scene, path);
  const value = typeof was === 'boolean' ? !was : (was as number) + by;
  try {
    return checkedScene(patchScene(scene, [{ op: 'replace', path, value }]));
  } catch (error) {
    if (error instanceof SceneFormatError || error instanceof PatchError) return scene;
    throw error;
  }
}

const change = fc.record({
  part: fc.constantFrom(...PARTS),
  leaf: fc.nat(5000),
  by: fc.constantFrom(1, -1, 0.1, -0.1, 0.04, -0.04),
});

it('makes the same frame however warm it is, whatever one thing was changed before', async () => {
  let different = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(change, { minLength: CHANGES, maxLength: CHANGES }), async (changes) => {
      const warm = spyRenderer().renderer;
      let scene = SCENE;
      let last = await show(warm, scene, SMALL);
      for (const one of changes) {
        const next = changed(scene, one);
        if (next === scene) continue;
        scene = next;
        const frame = await show(warm, scene, SMALL);
        const cold = spyRenderer().renderer;
        expect(largestDifference(frame, await show(cold, scene, SMALL)), JSON.stringify(one)).toBe(0);
        cold.close();
        if (largestDifference(frame, last) > 0) different++;
        last = frame;
      }
      warm.close();
    }),
    { numRuns: ENGINES },
  );
  // A test in which nothing shows would prove nothing.
  expect(different).toBeGreaterThan(ENGINES);
});
