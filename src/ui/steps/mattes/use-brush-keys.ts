import { useSession } from '../../editor/editor-context';
import { useSizeKeys } from '../../picture/use-size-keys';

/** Brackets make the brush smaller and larger. */
export function useBrushKeys(): void {
  const { view } = useSession();
  useSizeKeys((sized) => {
    const { brush, set } = view.getState();
    set({ brush: { ...brush, size: sized(brush.size) } });
  });
}
