'use client';

import { Button, Group, Modal, Text } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { api } from '@/state/session/api';
import { useScene, useSession } from './editor-context';

/** A dialog that goes only when it is answered. */
const UNDISMISSED = {
  onClose: () => {},
  withCloseButton: false,
  closeOnEscape: false,
  closeOnClickOutside: false,
} as const;

/** Says that the page must be loaded anew, and that nothing is lost by it. */
function Outdated() {
  return (
    <Modal {...UNDISMISSED} opened title="Sundew was updated">
      <Text size="sm" c="dimmed">
        Load this page anew to go on. Your changes are kept in this browser, and go along.
      </Text>
      <Group mt="md" justify="flex-end">
        <Button onClick={() => window.location.reload()}>Load anew</Button>
      </Group>
    </Modal>
  );
}

/** Asks what becomes of work that cannot be saved over what another window saved. Nothing is overwritten. */
export function SaveConflict() {
  const router = useRouter();
  const { discard } = useSession();
  const id = useScene((state) => state.id);
  const scene = useScene((state) => state.scene);
  const saveState = useScene((state) => state.saveState);
  const reason = useScene((state) => state.saveReason);
  const [fault, setFault] = useState<string>();

  async function keepMine(): Promise<void> {
    try {
      const copy = await api.copy(id, scene);
      discard();
      router.push(`/scenes/${copy}`);
    } catch (error) {
      setFault((error as Error).message);
    }
  }

  function takeTheirs(): void {
    discard();
    window.location.reload();
  }

  if (saveState === 'outdated') return <Outdated />;
  return (
    <Modal
      {...UNDISMISSED}
      opened={saveState === 'stale' || saveState === 'refused'}
      title={
        saveState === 'stale' ? 'This scene was changed in another window' : 'The last change was not taken'
      }
    >
      <Text size="sm" c="dimmed">
        {reason} Your work in this window is still here. Keep it as a scene of its own, or open what is saved.
      </Text>
      {fault && (
        <Text size="sm" role="alert" mt="sm">
          {fault}
        </Text>
      )}
      <Group mt="md" justify="flex-end">
        <Button variant="default" onClick={takeTheirs}>
          Open what is saved
        </Button>
        <Button onClick={() => void keepMine()}>Keep mine as a copy</Button>
      </Group>
    </Modal>
  );
}
