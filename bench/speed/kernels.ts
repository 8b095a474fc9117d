import { createArena } from '@/engine/memory/arena';
import { createDirectPool } from '@/engine/pool/direct-pool';
import { createKernels, KERNEL_SCRATCH } from '@/engine/kernels/kernels';
import { loadKernels } from '@/engine/pool/node-pool';
import { createRenderer, type Renderer } from '@/engine/renderer';
import { circuitLight } from '@/engine/readouts/circuit';
import { copied, litScene, never, plate, region, space, walled } from './kit';
import { medianTime, report } from './time';

/** Kernels beside the functions of the core that they do the work of. */
export async function benchKernels(): Promise<void> {
  let turn = 0;
  console.log('\nOne lamp before two walls, everything it does, one thread\n');
  const both = [undefined, loadKernels()].map((module) => {
    const arena = createArena(1024 * 2 ** 20);
    const scratch = arena.allocate(KERNEL_SCRATCH).offset;
    const kernels = module && createKernels(module, arena.memory, scratch);
    return createRenderer(
      arena,
      createDirectPool(arena.memory, kernels),
      {
        codes: (file, part) => space.plates.read(file, part),
        lut: () => Promise.reject(new Error('no look-up table')),
        coverage: () => Promise.reject(new Error('no coverage')),
      },
      512 * 2 ** 20,
    );
  });
  const single = { ...litScene(plate, 1), plan: walled.plan };
  const light = { spill: true, air: true, source: true };
  const singly = async (own: Renderer) => {
    const anew = () => ({
      ...single,
      fixtures: single.fixtures.map((fixture) => ({ ...fixture, lumens: 1000 + ++turn / 100 })),
    });
    await own.read(circuitLight({ scene: anew(), region }, 'a', light), never);
    return medianTime(3, () => own.read(circuitLight({ scene: anew(), region }, 'a', light), never));
  };
  const [plain, quick] = [await singly(both[0]), await singly(both[1])];
  both.forEach((own) => own.close());
  report('kernels', quick, copied);
  report('plain TypeScript', plain, { to: 'the kernels', of: quick });
}
