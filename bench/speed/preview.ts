import { setNight } from '@/core/scene/commands';
import { setCircuit, setFixture } from '@/core/scene/fixture-commands';
import { runCommand } from '@/core/scene/command';
import type { Night } from '@/core/scene/schema';
import { receiveBytes } from '@/server/assets/asset-store';
import { takeLut } from '@/server/assets/lut-store';
import {
  copied,
  LAMPS,
  PREVIEW,
  RUNS,
  coarse,
  copy,
  dataDir,
  litScene,
  plate,
  region,
  scene,
  show,
  source,
  space,
  walled,
} from './kit';
import { medianTime, report } from './time';

/** An entry of a made-up cube: a little colder than what it is given. */
function entry(i: number): string {
  const [r, g, b] = [i % 33, Math.floor(i / 33) % 33, Math.floor(i / 33 ** 2)].map((place) => place / 32);
  return `${(0.9 * r).toFixed(5)} ${(0.95 * g).toFixed(5)} ${b.toFixed(5)}`;
}

/** Faders, controls of the night and dragged lamps, to a new frame. */
export async function benchPreview(): Promise<void> {
  await show(scene);
  await show(scene, coarse);
  console.log(
    `Preview ${PREVIEW.width} x ${PREVIEW.height}, ${LAMPS} lamps on 2 circuits, Node worker threads\n`,
  );
  report(`plain copy of ${((source.byteLength / 2 ** 20) | 0).toString()} MiB, one thread`, copy);

  await show(scene);
  await show(scene, coarse);
  let turn = 0;
  const fader = await medianTime(RUNS, () =>
    show(runCommand(scene, setCircuit('level', 'a', { level: -++turn / 10 })).scene),
  );
  report('fader move to new frame', fader, copied);

  const night = (more: Partial<Night> = {}) =>
    runCommand(scene, setNight('Exposure', { exposure: -3 - ++turn / 100, ...more })).scene;
  report('exposure move to new frame', await medianTime(RUNS, () => show(night())), copied);
  const { shape, byTone } = scene.night;
  const shaped = { shape: { ...shape, middle: 0.2, ceiling: 0.8 }, byTone: { ...byTone, strength: 0.4 } };
  report('the same, tones shaped and coloured', await medianTime(RUNS, () => show(night(shaped))), copied);
  const cube = ['LUT_3D_SIZE 33', ...Array.from({ length: 33 ** 3 }, (_, i) => entry(i))].join('\n');
  const { asset } = await takeLut(space, await receiveBytes(dataDir, Buffer.from(cube)));
  const looked = { ...shaped, lut: { asset, name: 'bench', strength: 0.7 } };
  report(
    'the same, through a look-up table of 33 a side',
    await medianTime(RUNS, () => show(night(looked))),
    copied,
  );
  const evened = () => runCommand(scene, setNight('Even out', { evenOut: 0.3 + (++turn % 50) / 100 })).scene;
  report('even out to new frame', await medianTime(RUNS, () => show(evened())), copied);

  const moved = () =>
    runCommand(
      scene,
      setFixture('move', 'lamp-2', { at: { u: 0.3 + ++turn / 1000, v: 0.3 }, foot: scene.fixtures[2].foot }),
    ).scene;
  report(
    'lamp move to new frame, coarse',
    await medianTime(RUNS, () => show(moved(), coarse, 'lamp-2')),
    copied,
  );
  report(
    'lamp move to new frame, fine',
    await medianTime(RUNS, () => show(moved(), region, 'lamp-2')),
    copied,
  );

  await show(walled);
  await show(walled, coarse);
  const movedBefore = () =>
    runCommand(
      walled,
      setFixture('move', 'lamp-2', { at: { u: 0.3 + ++turn / 1000, v: 0.3 }, foot: scene.fixtures[2].foot }),
    ).scene;
  report(
    'the same before two walls, coarse',
    await medianTime(RUNS, () => show(movedBefore(), coarse, 'lamp-2')),
    copied,
  );
  report(
    'the same before two walls, fine',
    await medianTime(RUNS, () => show(movedBefore(), region, 'lamp-2')),
    copied,
  );
  console.log('\nLamps, everything they do computed anew, 1600 x 1067 before two walls\n');
  for (const lamps of [1, 10, 100]) {
    const many = { ...litScene(plate, lamps), plan: walled.plan };
    const anew = () => ({
      ...many,
      fixtures: many.fixtures.map((fixture) => ({ ...fixture, lumens: 1000 + ++turn / 100 })),
    });
    const took = await medianTime(lamps > 10 ? 1 : 3, () => show(anew()));
    report(`${lamps} lamps: ${(took / lamps).toFixed(0)} ms a lamp`, took, copied);
  }
}
