'use client';

import { UnstyledButton } from '@mantine/core';
import { KIND_NAMES, KINDS } from '@/core/fixture/kinds';
import { useView } from '../editor/editor-context';
import classes from './kind-tiles.module.css';

/** A drawing on a square of 24, by its strokes. */
function Drawing({ strokes }: { strokes: readonly string[] }) {
  return (
    <svg width={17} height={17} viewBox="0 0 24 24" className={classes.drawing} aria-hidden>
      {strokes.map((d) => (
        <path key={d} d={d} />
      ))}
    </svg>
  );
}

/** What the next gesture on the picture lights. */
export function KindTiles() {
  const kind = useView((view) => view.kind);
  const setView = useView((view) => view.set);
  return (
    <div className={classes.tiles} role="radiogroup" aria-label="What to light">
      {KIND_NAMES.map((own) => (
        <UnstyledButton
          key={own}
          role="radio"
          aria-checked={own === kind}
          onClick={() => setView({ kind: own, chosen: undefined, picking: false })}
        >
          <Drawing strokes={KINDS[own].icon} />
          {KINDS[own].title}
        </UnstyledButton>
      ))}
    </div>
  );
}
