'use client';

import { UnstyledButton } from '@mantine/core';
import { gelColor } from '@/core/fixture/gel-color';
import { SWATCHES } from '@/core/fixture/swatches';
import type { Gel } from '@/core/scene/schema';
import { litCss } from '../desk/color-css';
import classes from './gel-swatches.module.css';

const isSame = (a: Gel, b: Gel) =>
  a.from === b.from && (a.from === 'kelvin' ? a.kelvin === b.kelvin : a.color.join() === b.color.join());

/** Gels at hand, each a drop of its light; beneath them, a colour that is none of white light. */
export function GelSwatches({ gel, onChange }: { gel: Gel; onChange: (gel: Gel) => void }) {
  return (
    <>
      <div className={classes.swatches} role="group" aria-label="Gels at hand">
        {SWATCHES.map(({ name, gel: own }) => (
          <UnstyledButton
            key={name}
            aria-label={name}
            title={name}
            aria-pressed={isSame(gel, own)}
            style={{ background: litCss(gelColor(own), 0.6) }}
            onClick={() => onChange(own)}
          />
        ))}
      </div>
      {gel.from === 'picture' && (
        <p className={classes.colored}>
          <span style={{ background: litCss(gelColor(gel), 0.6) }} aria-hidden />
          This gel is a colour. The slider puts white light of so many kelvin in its place.
        </p>
      )}
    </>
  );
}
