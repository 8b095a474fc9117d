'use client';

import Link from 'next/link';
import { useEffect, useState, type ComponentType } from 'react';
import { onReturn, watchConnection } from '@/state/session/connection';
import { api, ApiError } from '@/state/session/api';
import { openScene } from '@/state/session/open-session';
import { startEarly } from '@/state/work/engine';
import { BROWSER } from './browser';
import type { EditorProps } from './editor';
import { Opening } from './opening';

/** The editor's own code. It comes while the scene is asked for and the workers begin. */
const loadEditor = () =>
  import('./editor').catch(() => {
    throw new Error('The editor did not come from the server. Load this page again.');
  });

/** Opens a scene as the server has it now: a page kept from an earlier visit may be older. */
export function EditorLoader({ id }: { id: string }) {
  const [opened, setOpened] = useState<EditorProps & { Editor: ComponentType<EditorProps> }>();
  const [fault, setFault] = useState<Error>();
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    let left = false;
    const engine = startEarly();
    Promise.all([openScene(id, BROWSER), loadEditor()]).then(
      ([scene, { Editor }]) => {
        if (left) return;
        setFault(undefined);
        setOpened({ Editor, opened: scene, takeEngine: engine.take });
      },
      (error: Error) => {
        engine.drop();
        if (!left) setFault(error);
      },
    );
    return () => {
      left = true;
      engine.drop();
    };
  }, [id, attempt]);
  const isGone = fault instanceof ApiError && fault.status === 0;
  useEffect(() => {
    if (!isGone) return;
    const ends = [watchConnection(() => api.alive()), onReturn(() => setAttempt((now) => now + 1))];
    return () => ends.forEach((end) => end());
  }, [isGone]);
  if (fault) {
    return (
      <main className="message">
        <h1>This scene could not be opened</h1>
        <p role="alert">
          {fault.message} {isGone && 'The scene opens by itself when it answers.'}
        </p>
        <Link href="/">Back to your scenes</Link>
      </main>
    );
  }
  if (!opened) return <Opening id={id} />;
  const { Editor, ...props } = opened;
  return <Editor key={id} {...props} />;
}
