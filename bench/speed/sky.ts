import { setDesk } from '@/core/scene/commands';
import { runCommand, type Command } from '@/core/scene/command';
import { raiseMoon, setSky, setSkyPart } from '@/core/scene/sky-commands';
import { trueMoon } from '@/core/sky/true-moon';
import { trueStars } from '@/core/sky/true-stars';
import { receiveBytes } from '@/server/assets/asset-store';
import { renderRgb } from '@/server/output/render-picture';
import { beginScene } from '@/server/scenes/intake';
import { openScene } from '@/server/scenes/scene-repository';
import { RUNS, camera, coarse, copied, dataDir, never, photo, renderer, scene, show, space } from './kit';
import { medianTime, report } from './time';

/** The sky's controls, to a coarse and a fine frame; its share of a large output; the true sky. */
export async function benchSky(): Promise<void> {
  const clouded = [
    setSkyPart('Clouds', 'clouds', { cover: 0.6 }),
    raiseMoon({ azimuth: 10, elevation: 15 }),
  ].reduce((now, command) => runCommand(now, command).scene, scene);
  console.log('\nThe sky, 1600 x 1067: clouds over six tenths, stars, moon\n');
  await show(clouded, coarse);
  await show(clouded);
  let turn = 0;
  const controls: [name: string, command: () => Command][] = [
    ['the sky’s fader', () => setDesk('Sky', { sky: ++turn / 100 })],
    ['the moon’s fader', () => setDesk('Moon', { moon: ++turn / 100 })],
    ['where the sun went', () => setSky('Sun', { sun: -++turn })],
    ['the plate’s own clouds', () => setSky('Own', { own: (++turn % 90) / 100 })],
    ['other clouds', () => setSkyPart('Clouds', 'clouds', { seed: ++turn })],
    ['other stars', () => setSkyPart('Stars', 'stars', { seed: ++turn })],
    [
      'the true stars',
      () => setSkyPart('Stars', 'stars', { from: 'true', faintest: 5 + (++turn % 10) / 10 }),
    ],
    ['the moon’s phase', () => setSkyPart('Moon', 'moon', { phase: (++turn % 50) / 50 })],
  ];
  for (const [name, command] of controls) {
    const next = () => runCommand(clouded, command()).scene;
    report(`${name}, coarse`, await medianTime(RUNS, () => show(next(), coarse)), copied);
    report(`${name}, fine`, await medianTime(RUNS, () => show(next())), copied);
  }
  const { when } = scene.sky;
  report(
    'the stars and the moon of a moment',
    await medianTime(RUNS, () => void [trueStars(when, 6), trueMoon(when)]),
  );

  const { id } = await beginScene(space, await receiveBytes(dataDir, photo), 'photo.jpg');
  const own = openScene(space, id).scene;
  const whole = (from: 'plate' | 'hour') =>
    medianTime(3, () =>
      renderRgb(renderer, { ...own, sky: { ...clouded.sky, from }, desk: clouded.desk }, camera, never),
    );
  await whole('plate');
  const plain = await whole('plate');
  report('24 megapixels of output with the plate’s own sky', plain);
  report('the same with the hour’s', await whole('hour'), { to: 'that', of: plain });
}
