import { setCircuit } from '@/core/scene/fixture-commands';
import { setGround, setPlan } from '@/core/scene/commands';
import { FINISHES } from '@/core/plan/finishes';
import { runCommand } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';
import { copied, litScene, plate, RUNS, show } from './kit';
import { medianTime, report } from './time';

/** What mirrors in wet ground add to a first frame and to a fader, at preview size. */
export async function benchMirror(): Promise<void> {
  console.log('\nMirrors in wet ground, two circuits, 1600 x 1067\n');
  const wet = runCommand(litScene(plate, 4), setGround('Wet', FINISHES.wet)).scene;
  const faded = async (scene: Scene) => {
    let step = 0;
    await show(scene);
    return medianTime(RUNS, () => {
      const level = setCircuit('Level', 'a', { level: -(++step % 20) / 10 });
      return show(runCommand(scene, level).scene);
    });
  };
  const without = runCommand(wet, setPlan('Mirrors', { mirrors: 0 })).scene;
  report('a fader without them', await faded(without), copied);
  const from = performance.now();
  await show(wet);
  report('first with them, all else there', performance.now() - from);
  report('a fader with them', await faded(wet), copied);
}
