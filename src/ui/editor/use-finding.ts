import { notifications } from '@mantine/notifications';
import { isAbort } from '@/engine/aborted';
import { useView } from './editor-context';

/** Looks for something in the plate, which takes a while: shown while it lasts, and said when it goes wrong. Undefined then. */
export function useFinding(failed = 'The edge was not found') {
  const setView = useView((view) => view.set);
  return async <T>(work: () => Promise<T>): Promise<T | undefined> => {
    setView({ finding: true });
    try {
      return await work();
    } catch (error) {
      if (!isAbort(error))
        notifications.show({
          color: 'red',
          title: failed,
          message: (error as Error).message,
        });
      return undefined;
    } finally {
      setView({ finding: false });
    }
  };
}
