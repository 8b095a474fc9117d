'use client';

import { UnstyledButton } from '@mantine/core';
import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { EVERYWHERE } from '../editor/key-options';
import { useScene, useView } from '../editor/editor-context';

/** Milliseconds for which each light of a build-up stands alone before the next comes on. */
const PACE = 1600;

/** The scene from dark, one circuit after another: at a pace, or by key. */
export function BuildUp() {
  const count = useScene(({ scene }) => scene.circuits.length);
  const { buildUp, buildUpRuns, set: setView } = useView((view) => view);
  const on = buildUp !== undefined;

  useEffect(() => {
    if (buildUp === undefined || !buildUpRuns || buildUp >= count) return;
    const next = setTimeout(() => setView({ buildUp: buildUp + 1 }), PACE);
    return () => clearTimeout(next);
  }, [buildUp, buildUpRuns, count, setView]);

  const step = (by: number) => {
    if (buildUp === undefined) return;
    setView({ buildUp: Math.min(count, Math.max(0, buildUp + by)), buildUpRuns: false });
  };
  const keys = { ...EVERYWHERE, enabled: on };
  useHotkeys('n', () => step(1), keys);
  useHotkeys('p', () => step(-1), keys);

  return (
    <UnstyledButton
      disabled={count === 0}
      aria-pressed={on}
      title="N and P step through it; Escape ends it"
      onClick={() => setView(on ? { buildUp: undefined } : { buildUp: 0, buildUpRuns: true })}
    >
      {on ? 'end build-up' : 'build up'}
    </UnstyledButton>
  );
}
