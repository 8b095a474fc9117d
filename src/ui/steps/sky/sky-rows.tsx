'use client';

import { FIRST_SKY } from '@/core/sky/sky-schema';
import { setSkyPart, type SkyPart } from '@/core/scene/sky-commands';
import type { Range } from '@/core/fields/ranges';
import type { SkySettings } from '@/core/scene/schema';
import { NumberRow } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';

export type Look = Partial<Parameters<typeof NumberRow>[0]>;
type NumberIn<T> = { [K in keyof T]: T[K] extends number ? K : never }[keyof T];

/** Rows for numbers of one part of the sky. */
export function useSkyRow<Part extends SkyPart>(part: Part) {
  const values = useScene(({ scene }) => scene.sky[part]);
  const change = useScene((state) => state.change);
  const start: SkySettings[Part] = FIRST_SKY[part];
  return (name: NumberIn<SkySettings[Part]> & string, label: string, range: Range, look?: Look) => (
    <NumberRow
      label={label}
      value={values[name] as number}
      range={range}
      initial={start[name] as number}
      onChange={(value) =>
        change(
          `sky ${part} ${name}`,
          setSkyPart(label, part, { [name]: value } as Partial<SkySettings[Part]>),
        )
      }
      {...look}
    />
  );
}
