'use client';

import { RANGES } from '@/core/fields/ranges';
import { setPlan } from '@/core/scene/commands';
import { NumberRow } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';

/** How far all that shines mirrors what is around it. */
export function MirrorsRow() {
  const change = useScene((state) => state.change);
  const mirrors = useScene(({ scene }) => scene.plan.mirrors);
  return (
    <NumberRow
      label="Mirrors"
      value={mirrors}
      range={RANGES.strength}
      initial={1}
      onChange={(value) => change('plan mirrors', setPlan('Mirrors', { mirrors: value }))}
    />
  );
}
