import type { PaintStroke } from '@/core/matte/pass';

/** What the pressure of a pen may set, in words. */
export const PRESSURES: { value: PaintStroke['pressure']; label: string }[] = [
  { value: 'none', label: 'sets nothing' },
  { value: 'flow', label: 'sets the flow' },
  { value: 'size', label: 'sets the size' },
  { value: 'both', label: 'sets both' },
];
