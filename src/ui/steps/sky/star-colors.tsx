'use client';

import { useState } from 'react';
import { blackbodyRgb } from '@/core/color/planckian';
import { RANGES } from '@/core/fields/ranges';
import { setSkyPart } from '@/core/scene/sky-commands';
import { STAR_CLASSES, STAR_WHITE, starKelvin } from '@/core/sky/star-color';
import { NumberRow } from '../../controls/number-row';
import { useFader } from '../../controls/use-fader';
import { litCss } from '../../desk/color-css';
import { useScene } from '../../editor/editor-context';
import classes from './star-colors.module.css';

const titleOf = (name: string) => name[0].toUpperCase() + name.slice(1);

/** A star of a class as it looks: one in the middle of it. */
const colorOf = (k: number) =>
  litCss(blackbodyRgb(starKelvin((STAR_CLASSES[k - 1]?.until ?? -0.3) + 0.15), STAR_WHITE));

/** How strongly each colour of stars comes out: one strip from hot to cool, and the number of the one that is chosen. */
export function StarColors() {
  const colors = useScene(({ scene }) => scene.sky.stars.colors);
  const change = useScene((state) => state.change);
  const [chosen, setChosen] = useState(0);
  const set = (k: number, value: number) =>
    change(
      `sky stars color ${k}`,
      setSkyPart(`Stars: ${STAR_CLASSES[k].name}`, 'stars', {
        colors: colors.map((own, i) => (i === k ? value : own)),
      }),
    );
  return (
    <>
      <span className={classes.name}>Colours, hot to cool</span>
      <div className={classes.strip} role="group" aria-label="Colours of stars">
        {STAR_CLASSES.map(({ name }, k) => (
          <Strength
            key={name}
            label={`${titleOf(name)} stars`}
            color={colorOf(k)}
            value={colors[k]}
            isChosen={k === chosen}
            onChoose={() => setChosen(k)}
            onChange={(value) => set(k, value)}
          />
        ))}
      </div>
      <NumberRow
        label={titleOf(STAR_CLASSES[chosen].name)}
        value={colors[chosen]}
        range={RANGES.starColor}
        initial={1}
        onChange={(value) => set(chosen, value)}
      />
    </>
  );
}

interface StrengthProps {
  label: string;
  color: string;
  value: number;
  isChosen: boolean;
  onChoose: () => void;
  onChange: (value: number) => void;
}

/** One colour of the strip: as bright as it comes out, dragged up and down. */
function Strength({ label, color, value, isChosen, onChoose, onChange }: StrengthProps) {
  const { position, props } = useFader({
    ...{ label, value, range: RANGES.starColor, initial: 1, axis: 'up' as const },
    ...{ text: value.toFixed(RANGES.starColor.decimals), onChange },
  });
  return (
    <div className={classes.strength} data-chosen={isChosen || undefined} onFocus={onChoose} {...props}>
      <div className={classes.light} style={{ height: `${100 * position}%`, background: color }} />
    </div>
  );
}
