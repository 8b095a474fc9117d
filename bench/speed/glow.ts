import { setFixture } from '@/core/scene/fixture-commands';
import { runCommand } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';
import { newFixture } from '@/state/actions/fixture-actions';
import { coarse, copied, litScene, never, plate, region, renderer, RUNS, show } from './kit';
import { medianTime, report } from './time';

/** A glow key that is moved and set at preview size. */
export async function benchGlow(): Promise<void> {
  console.log('\nA glow key among two lamps, 1600 x 1067\n');
  const lit = litScene(plate, 2);
  const loop = [
    { u: 0.4, v: 0.4 },
    { u: 0.5, v: 0.4 },
    { u: 0.5, v: 0.5 },
    { u: 0.4, v: 0.5 },
  ];
  const key = newFixture(lit, 'glow', { u: 0.45, v: 0.45 }, loop, lit.circuits[0]);
  const scene: Scene = { ...lit, fixtures: [...lit.fixtures, { ...key, id: 'key' }] };
  await show(scene);
  let step = 0;
  const moved = () => {
    const by = ++step / 1600;
    const path = loop.map(({ u, v }) => ({ u: u + by, v }));
    return runCommand(scene, setFixture('Move', 'key', { path, at: { u: 0.45 + by, v: 0.45 } })).scene;
  };
  report('moved, coarse', await medianTime(RUNS, () => show(moved(), coarse)), copied);
  const moving = scene.fixtures.at(-1);
  const dragged = () => renderer.frame({ scene: moved(), region, moving }, never, () => {});
  report('moved, fine, as it is dragged', await medianTime(RUNS, dragged), copied);
  report('moved, fine, let go', await medianTime(RUNS, () => show(moved())), copied);
}
