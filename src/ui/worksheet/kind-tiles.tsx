'use client';

import { UnstyledButton } from '@mantine/core';
import {
  IconArrowBarToLeft,
  IconBulb,
  IconCampfire,
  IconCar,
  IconCarSuv,
  IconGrain,
  IconCandle,
  IconTilde,
  IconWindow,
  type Icon,
} from '@tabler/icons-react';
import { FIXTURE_KINDS } from '@/core/fixture/defaults';
import { KINDS, type Fixture } from '@/core/scene/schema';
import { useView } from '../editor/editor-context';
import classes from './kind-tiles.module.css';

const ICONS: Record<Fixture['kind'], Icon> = {
  globe: IconBulb,
  lantern: IconCandle,
  pane: IconWindow,
  tube: IconTilde,
  strand: IconGrain,
  headlamps: IconCar,
  tails: IconCarSuv,
  fire: IconCampfire,
  offstage: IconArrowBarToLeft,
};

/** What the next gesture on the picture lights. */
export function KindTiles() {
  const kind = useView((view) => view.kind);
  const setView = useView((view) => view.set);
  return (
    <div className={classes.tiles} role="radiogroup" aria-label="What to light">
      {KINDS.map((own) => {
        const Drawn = ICONS[own];
        return (
          <UnstyledButton
            key={own}
            role="radio"
            aria-checked={own === kind}
            onClick={() => setView({ kind: own, chosen: undefined, picking: false })}
          >
            <Drawn size={17} stroke={1.5} aria-hidden />
            {FIXTURE_KINDS[own].title}
          </UnstyledButton>
        );
      })}
    </div>
  );
}
