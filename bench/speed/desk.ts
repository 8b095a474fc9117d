import { setCircuit } from '@/core/scene/fixture-commands';
import { runCommand } from '@/core/scene/command';
import type { Scene } from '@/core/scene/schema';
import { createArena } from '@/engine/memory/arena';
import { createNodePool } from '@/engine/pool/node-pool';
import { createRenderer } from '@/engine/renderer';
import { RUNS, fullDesk, never, pixels, plate, region, space } from './kit';
import { medianTime, report } from './time';

/** A full desk. */
export async function benchDesk(): Promise<void> {
  let turn = 0;
  console.log('\nA full desk: 12 circuits, 60 fixtures of all kinds, 1600 x 1067\n');
  {
    const arena = createArena(1536 * 2 ** 20);
    const own = createRenderer(
      arena,
      createNodePool(arena),
      {
        codes: (file, part) => space.plates.read(file, part),
        lut: () => Promise.reject(new Error('no look-up table')),
        coverage: () => Promise.reject(new Error('no coverage')),
      },
      512 * 2 ** 20,
    );
    const desk = fullDesk(plate);
    const draw = (next: Scene) => own.frame({ scene: next, region }, never, () => {});
    const began = performance.now();
    await draw(desk);
    report('first frame, everything computed', performance.now() - began);
    const planes = 3 + 3 + 1 + 1 + 2 * desk.circuits.length;
    const [read, written] = [new Float32Array(pixels * planes), new Float32Array(pixels * planes)];
    const copies = await medianTime(9, () => written.set(read));
    report(`plain copy of the ${planes} planes that a fader reads, one thread`, copies);
    const levelled = () => runCommand(desk, setCircuit('level', 'c3', { level: -++turn / 50 })).scene;
    report('a fader', await medianTime(RUNS, () => draw(levelled())), { to: 'that copy', of: copies });
    const warmed = () => runCommand(desk, setCircuit('warmth', 'c3', { warmth: ++turn % 100 })).scene;
    report('the warmth of a circuit', await medianTime(RUNS, () => draw(warmed())), {
      to: 'that copy',
      of: copies,
    });
    console.log(`memory in use ${(arena.used() / 2 ** 20).toFixed(0)} MiB of at most 1536 MiB`);
    own.close();
  }
}
