import { flood } from './flood';

/** Sets to 1 every connected patch of zeros that has at most `largest` pixels. */
export function fillHoles(mask: Uint8Array, width: number, height: number, largest: number): void {
  const open = mask.map((m) => 1 - m);
  const patch = new Int32Array(mask.length);
  for (let i = 0; i < open.length; i++) {
    if (!open[i]) continue;
    const size = flood(patch, open, width, height, i);
    for (let k = 0; k < size; k++) {
      open[patch[k]] = 0;
      if (size <= largest) mask[patch[k]] = 1;
    }
  }
}
