import type { PlaneRef } from '../graph/task';
import { planeKernels, type PlaneKernels } from './plane-kernels';
import { bindKernels } from './bound';
import { lensKernels, type LensKernels } from './lens-kernels';
import { lightKernels, type LightKernels } from './light-kernels';
import { mirrorKernels, type MirrorKernels } from './mirror-kernels';
import { pictureKernels, type PictureKernels } from './picture-kernels';
import { plateKernels, type PlateKernels } from './plate-kernels';
import { reliefKernels, type ReliefKernels } from './relief-kernels';
import { skyKernels, type SkyKernels } from './sky-kernels';

export { KERNEL_SCRATCH } from './bound';

/**
 * The hot loops as SIMD. All planes lie in the memory that the kernels are bound to; those of a region are whole, and the region is at
 * least LEAST_SIDE pixels wide. What they do is what the functions of the core do that stand in for them without kernels: the tests'
 * oracle.
 */
export type Kernels = PictureKernels &
  PlateKernels &
  SkyKernels &
  LensKernels &
  LightKernels &
  ReliefKernels &
  MirrorKernels &
  PlaneKernels;

/** Binds a compiled module to a memory. `scratch` is a block of KERNEL_SCRATCH bytes that is this worker's alone. */
export function createKernels(
  module: WebAssembly.Module,
  memory: WebAssembly.Memory,
  scratch: PlaneRef,
): Kernels {
  const bound = bindKernels(module, memory, scratch);
  return {
    ...pictureKernels(bound),
    ...plateKernels(bound),
    ...skyKernels(bound),
    ...lensKernels(bound),
    ...lightKernels(bound),
    ...reliefKernels(bound),
    ...mirrorKernels(bound),
    ...planeKernels(bound),
  };
}
