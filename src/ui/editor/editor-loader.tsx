'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { OpenScene } from '@/core/scene/opened-scene';
import { api } from '@/state/api';
import { Editor } from './editor';

/** Opens a scene as the server has it now: a page kept from an earlier visit may be older. */
export function EditorLoader({ id }: { id: string }) {
  const [opened, setOpened] = useState<OpenScene>();
  const [fault, setFault] = useState<string>();
  useEffect(() => {
    let left = false;
    api.openScene(id).then(
      (scene) => {
        if (!left) setOpened(scene);
      },
      (error: Error) => {
        if (!left) setFault(error.message);
      },
    );
    return () => {
      left = true;
    };
  }, [id]);
  if (fault) {
    return (
      <main className="message">
        <h1>This scene could not be opened</h1>
        <p role="alert">{fault}</p>
        <Link href="/">Back to your scenes</Link>
      </main>
    );
  }
  return opened ? <Editor key={id} opened={opened} /> : <main className="message" aria-busy="true" />;
}
