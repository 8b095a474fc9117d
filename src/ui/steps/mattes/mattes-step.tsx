'use client';

import { Button, UnstyledButton } from '@mantine/core';
import type { PassKind } from '@/core/matte/pass';
import { usesOf } from '@/core/scene/matte-uses';
import { addMatte } from '@/core/scene/matte-commands';
import { newMatte, OWN_KINDS, PASS_NAMES } from '@/state/actions/matte-actions';
import { useScene, useView } from '../../editor/editor-context';
import { MatteSettings } from './matte-settings';
import { MatteThumbnail } from './matte-thumbnail';
import own from '../../worksheet/lists.module.css';
import classes from '../../worksheet/worksheet.module.css';
import { useBrushKeys } from './use-brush-keys';

/** Mattes: said once what is where, named, and used wherever something asks for one. */
export function MattesStep() {
  useBrushKeys();
  const scene = useScene((state) => state.scene);
  const run = useScene((state) => state.run);
  const chosen = useView((view) => view.matte);
  const setView = useView((view) => view.set);
  const matte = scene.mattes.find(({ id }) => id === chosen);

  function begin(kind: Exclude<PassKind, 'matte'>): void {
    const made = newMatte(scene, kind);
    run(addMatte(made));
    setView({ matte: made.id, pass: made.passes[0].id });
  }

  return (
    <>
      <ul className={own.list} aria-label="Mattes">
        {scene.mattes.map((item) => {
          const uses = usesOf(scene, item.id).length;
          return (
            <li key={item.id}>
              <UnstyledButton
                className={own.item}
                aria-pressed={item.id === chosen}
                onClick={() =>
                  setView({ matte: item.id === chosen ? undefined : item.id, pass: item.passes[0]?.id })
                }
              >
                <MatteThumbnail matte={item} />
                {item.name}
                <span>{uses === 0 ? 'not used' : uses === 1 ? 'used once' : `used ${uses} times`}</span>
              </UnstyledButton>
            </li>
          );
        })}
      </ul>
      {scene.mattes.length === 0 && (
        <p className={classes.hint}>
          No matte yet. Begin one: the sky takes a single click, a person one loop of the edge brush.
        </p>
      )}
      <div className={classes.actions}>
        {OWN_KINDS.map((kind) => (
          <Button key={kind} size="compact-xs" variant="default" onClick={() => begin(kind)}>
            {PASS_NAMES[kind]}
          </Button>
        ))}
      </div>
      {matte && <MatteSettings key={matte.id} matte={matte} />}
    </>
  );
}
