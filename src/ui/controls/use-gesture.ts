import { useContext } from 'react';
import { EditorContext } from '../editor/editor-context';

const NONE = { hold: () => {}, end: () => {} };

/**
 * The gesture under way in the open scene: held while a pointer is down, ended when it is let go. Outside of the editor there is no
 * document that it could change.
 */
export function useGesture(): { hold: () => void; end: () => void } {
  const session = useContext(EditorContext);
  if (!session) return NONE;
  const { hold, settle } = session.scene.getState();
  return { hold, end: settle };
}
