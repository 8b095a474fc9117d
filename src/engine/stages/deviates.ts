import { DEVIATES, fillDeviates } from '@/core/lens/grain';
import { wholeRegion } from '@/core/plane/region';
import { stage } from '../graph/stage';

/** What grain is drawn from: the same for every picture. */
export const deviates = stage({
  name: 'deviates',
  part: 'the lens',
  region: () => wholeRegion(1, 1),
  settings: () => undefined,
  inputs: () => ({}),
  planes: () => ({ table: DEVIATES }),
  pace: 'quick',
  whole: true,
  run: ({ table }) => fillDeviates(table),
});
