'use client';

import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { OpenedSession } from '@/state/session/open-session';
import type { SceneActions, SceneState } from '@/state/session/scene-store';
import type { Engine } from '@/state/work/engine';
import type { ViewState, ViewStore } from '../view/view-store';

/** A session with what its window shows, and what it is shown by. */
export type EditorSession = OpenedSession & { view: ViewStore; takeEngine: () => Engine };

export const EditorContext = createContext<EditorSession | null>(null);

export function useSession(): EditorSession {
  const session = useContext(EditorContext);
  if (!session) throw new Error('This part belongs inside the editor.');
  return session;
}

export function useScene<T>(select: (state: SceneState & SceneActions) => T): T {
  return useStore(useSession().scene, select);
}

export function useView<T>(select: (state: ViewState) => T): T {
  return useStore(useSession().view, select);
}
