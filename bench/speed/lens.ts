import sharp from 'sharp';
import { setDesk } from '@/core/scene/commands';
import { runCommand, type Command } from '@/core/scene/command';
import { setCircuit } from '@/core/scene/fixture-commands';
import { setGrain, setLens } from '@/core/scene/lens-commands';
import { receiveBytes } from '@/server/assets/asset-store';
import { renderRgb } from '@/server/output/render-picture';
import { beginScene } from '@/server/scenes/intake';
import { openScene } from '@/server/scenes/scene-repository';
import { RUNS, camera, copied, dataDir, litScene, never, photo, plate, renderer, show, space } from './kit';
import { medianTime, report } from './time';

/** As many sources as a full desk has. */
const SOURCES = 60;

/** Radius of the blur that the lens of a large output is held against, pixels. */
const BLUR = 40;

/** The lens's controls and a fader before it, at preview size; its share of a large output. */
export async function benchLens(): Promise<void> {
  console.log(`\nThe lens, 1600 x 1067: ${SOURCES} sources with eight spikes each, veil\n`);
  const lit = litScene(plate, SOURCES);
  await show(lit);
  let turn = 0;
  const controls: [name: string, command: () => Command][] = [
    ['the turn of the spikes', () => setLens('Turn', { turn: ++turn % 90 })],
    ['the fader of the spikes', () => setDesk('Spikes', { spikes: -++turn / 100 })],
    ['the fader of the veil', () => setDesk('Veil', { veil: -++turn / 100 })],
    ['the reach of the veil', () => setLens('Reach', { veilReach: 0.05 + (++turn % 40) / 100 })],
    ['a circuit’s fader', () => setCircuit('Dim', 'a', { level: -++turn / 100 })],
    ['grain', () => setGrain('Grain', { iso: 800 + (++turn % 100) })],
  ];
  for (const [name, command] of controls)
    report(name, await medianTime(RUNS, () => show(runCommand(lit, command()).scene)), copied);

  const { id } = await beginScene(space, await receiveBytes(dataDir, photo), 'photo.jpg');
  const own = openScene(space, id).scene;
  const sources = litScene(own.plate, SOURCES);
  const whole = (stops: number) =>
    medianTime(3, () =>
      renderRgb(
        renderer,
        { ...sources, desk: { ...sources.desk, spikes: stops, veil: stops } },
        camera,
        never,
      ),
    );
  const blur = await medianTime(3, () => sharp(photo).blur(BLUR).raw().toBuffer());
  report(`libvips: a blur of ${BLUR} pixels over the same photo`, blur);
  const clear = await whole(-10);
  report('24 megapixels of output without a lens', clear);
  report('the same with spikes and veil, more than that', (await whole(0)) - clear, {
    to: 'the blur',
    of: blur,
  });
}
