'use client';

import { Radio } from '@mantine/core';
import {
  OUTPUT_FORMAT_NAMES,
  OUTPUT_FORMATS,
  SHORTEST_OUTPUT,
  type OutputChoice,
  type OutputColours,
  type OutputFacts,
} from '@/core/output/output-formats';
import { RANGES } from '@/core/fields/ranges';
import { Choice } from '../controls/choice';
import { NumberRow } from '../controls/number-row';
import { FIRST_ORDER } from './remembered-order';

const QUALITY = { min: 40, max: 100, step: 1, unit: '', decimals: 0 };

const COLOURS: { value: OutputColours; label: string }[] = [
  { value: 'srgb', label: 'sRGB, for any screen' },
  { value: 'p3', label: 'Display P3' },
];

const FACTS: { value: OutputFacts; label: string }[] = [
  { value: 'placeless', label: 'The photo’s, but no place' },
  { value: 'all', label: 'All of the photo’s' },
  { value: 'none', label: 'None' },
];

interface OrderRowsProps {
  order: OutputChoice;
  /** All of the picture, pixels. */
  full: { width: number; height: number };
  onChange: (order: OutputChoice) => void;
}

/** How pictures are written: format, quality, size, colours, and what they say of themselves. */
export function OrderRows({ order, full, onChange }: OrderRowsProps) {
  const longest = Math.max(full.width, full.height);
  const range = { min: SHORTEST_OUTPUT, max: longest, step: 1, unit: 'px', decimals: 0 };
  const form = OUTPUT_FORMATS[order.format];
  return (
    <>
      <Radio.Group
        aria-label="Format"
        value={order.format}
        onChange={(format) => onChange({ ...order, format: format })}
      >
        {OUTPUT_FORMAT_NAMES.map((name) => (
          <Radio
            key={name}
            size="xs"
            py={2.5}
            value={name}
            label={OUTPUT_FORMATS[name].label}
            description={order.format === name ? OUTPUT_FORMATS[name].says : undefined}
          />
        ))}
      </Radio.Group>
      {form.hasQuality && (
        <NumberRow
          label="Quality"
          value={order.quality}
          range={QUALITY}
          initial={FIRST_ORDER.quality}
          onChange={(quality) => onChange({ ...order, quality })}
        />
      )}
      <NumberRow
        label="Long side"
        value={Math.min(longest, order.long ?? longest)}
        range={range}
        initial={longest}
        onChange={(long) => onChange({ ...order, long: long < longest ? long : undefined })}
      />
      {!('hasLayers' in form) && <PictureRows order={order} onChange={onChange} />}
    </>
  );
}

/** What only single pictures have. */
function PictureRows({ order, onChange }: Omit<OrderRowsProps, 'full'>) {
  return (
    <>
      <NumberRow
        label="Sharpen"
        value={order.sharpen ?? 0}
        range={RANGES.strength}
        initial={0}
        onChange={(sharpen) => onChange({ ...order, sharpen: sharpen > 0 ? sharpen : undefined })}
      />
      {!('isLinear' in OUTPUT_FORMATS[order.format]) && (
        <Choice
          caption="Colours"
          data={COLOURS}
          value={order.colours ?? 'srgb'}
          onChange={(colours) => onChange({ ...order, colours })}
        />
      )}
      <Choice
        caption="Facts"
        label="Facts that the file holds"
        data={FACTS}
        value={order.facts ?? 'placeless'}
        onChange={(facts) => onChange({ ...order, facts })}
      />
    </>
  );
}
