import { setCircuit } from '@/core/scene/fixture-commands';
import { setGround, setPlan } from '@/core/scene/commands';
import type { PlatePoint } from '@/core/geometry/camera';
import { FINISHES, GLOSS_FORMS } from '@/core/plan/finishes';
import { runCommand } from '@/core/scene/command';
import type { Matte, Scene } from '@/core/scene/schema';
import { copied, litScene, plate, RUNS, show } from './kit';
import { medianTime, report } from './time';

/** A scene with a pane that shines in the middle of the picture. */
function glazed(scene: Scene): Scene {
  const corners: PlatePoint[] = [0.3, 0.6].flatMap((v) => [0.3, 0.7].map((u) => ({ u, v })));
  const [a, b, c, d] = corners;
  const matte: Matte = {
    ...{ id: 'glass', name: 'Glass', refine: 0, grow: 0, feather: 0, invert: false },
    passes: [{ id: 'outline', join: 'add', kind: 'outline', points: [a, b, d, c] }],
  };
  const gloss = { id: 'gloss', name: 'Glass', matte: matte.id, turn: 20, ...GLOSS_FORMS.glass };
  return { ...scene, mattes: [matte], plan: { ...scene.plan, glosses: [gloss] } };
}

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
  report('with a gloss that they show too', await faded(glazed(wet)), copied);
}
