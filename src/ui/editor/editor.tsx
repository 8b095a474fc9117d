'use client';

import { useEffect, useState } from 'react';
import type { OpenScene } from '@/core/scene/opened-scene';
import { openSession, type OpenedSession } from '@/state/open-session';
import { Desk } from '../desk/desk';
import { Picture } from '../picture/picture';
import { Worksheet } from '../worksheet/worksheet';
import { EditorContext } from './editor-context';
import { Header } from './header';
import { SaveConflict } from './save-conflict';
import { useEditorKeys } from './use-editor-keys';
import classes from './editor.module.css';

/** The editor of one scene. It lives in the browser alone: what it shows depends on what this window left unsaved. */
export function Editor({ opened }: { opened: OpenScene }) {
  const [session, setSession] = useState<OpenedSession>();
  useEffect(() => {
    const next = openSession(opened);
    setSession(next);
    return next.close;
  }, [opened]);
  if (!session) return <div className={classes.editor} aria-busy />;
  return (
    <EditorContext.Provider value={session}>
      <EditorBody />
    </EditorContext.Provider>
  );
}

function EditorBody() {
  useEditorKeys();
  return (
    <div className={classes.editor}>
      <Header />
      <div className={classes.middle}>
        <Worksheet />
        <Picture />
      </div>
      <Desk />
      <SaveConflict />
    </div>
  );
}
