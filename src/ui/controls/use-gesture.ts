import { useSession } from '../editor/editor-context';

/** The gesture under way in the open scene: held while a pointer is down, ended when it is let go. */
export function useGesture(): { hold: () => void; end: () => void } {
  const { hold, settle } = useSession().scene.getState();
  return { hold, end: settle };
}
