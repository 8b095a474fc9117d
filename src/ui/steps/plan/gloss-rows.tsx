'use client';

import { RANGES } from '@/core/fields/ranges';
import { GLOSS_FORMS } from '@/core/plan/finishes';
import { setSurface } from '@/core/scene/commands';
import type { GroundPlan } from '@/core/scene/schema';
import { MirrorsRow } from './mirrors-row';
import { ReadyMade } from './ready-made';
import { NumberRow } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';
import classes from '../../worksheet/worksheet.module.css';

type Gloss = GroundPlan['glosses'][number];

const NAMES = { glass: 'Shop glass', windscreen: 'Windscreen', bonnet: 'Bonnet' } as const;
const ROWS = [
  { key: 'turn', label: 'Turn', range: RANGES.glossTurn, initial: 0 },
  { key: 'lean', label: 'Lean', range: RANGES.lean, initial: 0 },
  { key: 'roundness', label: 'Roundness', range: RANGES.strength, initial: 0 },
  { key: 'sheen', label: 'Sheen', range: RANGES.strength, initial: GLOSS_FORMS.glass.sheen },
  { key: 'roughness', label: 'Roughness', range: RANGES.roughness, initial: GLOSS_FORMS.glass.roughness },
] as const;

/** What is set of a gloss: a ready-made one, or how it faces and what it gives back. */
export function GlossRows({ gloss }: { gloss: Gloss }) {
  const run = useScene((state) => state.run);
  const change = useScene((state) => state.change);
  const { id, name } = gloss;
  return (
    <>
      <ReadyMade
        label="Form"
        names={NAMES}
        sets={GLOSS_FORMS}
        now={gloss}
        onTake={(form, values) => run(setSurface(`${name}: ${form}`, 'glosses', id, values))}
      />
      {ROWS.map(({ key, label, range, initial }) => (
        <NumberRow
          key={key}
          label={label}
          value={gloss[key]}
          range={range}
          initial={initial}
          onChange={(value) =>
            change(
              `surface ${id} ${key}`,
              setSurface(`${name}: ${label.toLowerCase()}`, 'glosses', id, { [key]: value }),
            )
          }
        />
      ))}
      <MirrorsRow />
      <p className={classes.hint}>
        Turn 0 faces you, more faces to the right. Lean 0 is upright, 90 level. Lamps glint in it. Mirrors
        says how far this and all else that shines shows what is around it.
      </p>
    </>
  );
}
