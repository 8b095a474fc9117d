'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import { onReturn, watchConnection } from '@/state/session/connection';
import { api, ApiError } from '@/state/session/api';
import { openScene, type Opening } from '@/state/session/open-session';
import { BROWSER } from './browser';
import { Editor } from './editor';

/** Opens a scene as the server has it now: a page kept from an earlier visit may be older. */
export function EditorLoader({ id }: { id: string }) {
  const [opened, setOpened] = useState<Opening>();
  const [fault, setFault] = useState<Error>();
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    let left = false;
    openScene(id, BROWSER).then(
      (scene) => {
        if (left) return;
        setFault(undefined);
        setOpened(scene);
      },
      (error: Error) => {
        if (!left) setFault(error);
      },
    );
    return () => {
      left = true;
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
  return opened ? <Editor key={id} opened={opened} /> : <main className="message" aria-busy="true" />;
}
