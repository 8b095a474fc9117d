import { useLocalStorage } from '@mantine/hooks';
import {
  OUTPUT_COLOURS,
  OUTPUT_FACTS,
  OUTPUT_FORMAT_NAMES,
  type OutputChoice,
} from '@/core/output/output-formats';

export const FIRST_ORDER: OutputChoice = { format: 'jpeg', quality: 92 };

/** Where a browser remembers how pictures were sent out last. */
const REMEMBERED = 'sundew-output';

/** What is remembered, where it is still sound. */
function remembered(text: string | undefined): OutputChoice {
  try {
    const { format, quality, long, colours, sharpen, facts } = JSON.parse(
      text ?? '',
    ) as Partial<OutputChoice>;
    if (!OUTPUT_FORMAT_NAMES.includes(format!) || typeof quality !== 'number') return FIRST_ORDER;
    return {
      ...{ format: format!, quality },
      ...(typeof long === 'number' && { long }),
      ...(OUTPUT_COLOURS.includes(colours!) && { colours }),
      ...(typeof sharpen === 'number' && sharpen > 0 && sharpen <= 1 && { sharpen }),
      ...(OUTPUT_FACTS.includes(facts!) && { facts }),
    };
  } catch {
    return FIRST_ORDER;
  }
}

/** How pictures are written: as they were the last time. */
export const useRememberedOrder = () =>
  useLocalStorage<OutputChoice>({ key: REMEMBERED, defaultValue: FIRST_ORDER, deserialize: remembered });
