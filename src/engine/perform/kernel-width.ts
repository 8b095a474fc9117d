/** Kernels work on four pixels at a time; narrower pictures go by their twins. */
export const KERNEL_WIDTH = 4;
