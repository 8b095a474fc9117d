'use client';

import { useEffect, useState } from 'react';
import type { OpenScene } from '@/core/scene/opened-scene';
import { openSession } from '@/state/open-session';
import { Desk } from '../desk/desk';
import { Picture } from '../picture/picture';
import { Worksheet } from '../worksheet/worksheet';
import { Deeds } from './deeds';
import { EditorContext } from './editor-context';
import { Header } from './header';
import { SaveConflict } from './save-conflict';
import { useCopyingKeys } from './use-copying';
import { useEditorKeys } from './use-editor-keys';
import classes from './editor.module.css';

/** The editor of one scene. */
export function Editor({ opened }: { opened: OpenScene }) {
  const [session] = useState(() => openSession(opened));
  useEffect(() => session.close, [session]);
  return (
    <EditorContext.Provider value={session}>
      <EditorBody />
    </EditorContext.Provider>
  );
}

function EditorBody() {
  useEditorKeys();
  useCopyingKeys();
  return (
    <div className={classes.editor}>
      <Header />
      <div className={classes.middle}>
        <Worksheet />
        <Picture />
      </div>
      <Desk />
      <SaveConflict />
      <Deeds />
    </div>
  );
}
