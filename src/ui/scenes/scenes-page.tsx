'use client';

import { Button, Loader, Progress } from '@mantine/core';
import { Dropzone } from '@mantine/dropzone';
import '@mantine/dropzone/styles.css';
import { notifications } from '@mantine/notifications';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, type PropsWithChildren } from 'react';
import { MOST_TOGETHER } from '@/core/output/output-order';
import type { SceneSummary } from '@/core/scene/opened-scene';
import { api, ApiError } from '@/state/session/api';
import { watchConnection } from '@/state/session/connection';
import { Logo } from '../editor/logo';
import { Outgoing } from './outgoing';
import { SceneCard } from './scene-card';
import { SendTogether } from './send-together';
import classes from './scenes.module.css';

/** A photo on its way in: how much of it is sent, 0 to 1. */
interface Taking {
  name: string;
  cancel: AbortController;
  sent: number;
}

/** The wall of scenes. A photo dropped anywhere begins one. */
export function ScenesPage({ scenes }: { scenes: SceneSummary[] }) {
  const router = useRouter();
  const choose = useRef<() => void>(null);
  const { taking, fault, setFault, begin } = useTaking();
  const [chosen, setChosen] = useState<string[]>();
  const [sending, setSending] = useState(false);
  const together = scenes.filter(({ id }) => chosen?.includes(id));
  useEffect(() => watchConnection(() => api.alive()), []);
  useEffect(() => router.refresh(), [router]); // A wall kept from an earlier visit may be older.

  return (
    <div className={classes.page}>
      <header className={classes.header}>
        <Logo />
        <div className={classes.begin}>
          {taking && <Underway {...taking} />}
          {!taking && chosen && (
            <Choosing
              count={together.length}
              onAll={() => setChosen(scenes.slice(0, MOST_TOGETHER).map(({ id }) => id))}
              onSend={() => setSending(true)}
              onEnd={() => setChosen(undefined)}
            />
          )}
          {!taking && !chosen && (
            <Beginning
              onChoose={() => choose.current?.()}
              onSeveral={scenes.length > 0 ? () => setChosen([]) : undefined}
            />
          )}
        </div>
      </header>
      {fault && <Fault>{fault}</Fault>}
      <Outgoing />
      {sending && <SendTogether scenes={together} onClose={() => setSending(false)} />}
      <main className={classes.wall}>
        {scenes.map((scene) => (
          <SceneCard
            key={scene.id}
            scene={scene}
            onGone={() => router.refresh()}
            onFault={setFault}
            choosing={chosen && choiceOf(scene.id, chosen, setChosen)}
          />
        ))}
        {scenes.length === 0 && <p className={classes.hint}>No scene yet. Drop a daytime photo here.</p>}
      </main>
      <Dropzone.FullScreen
        active={!taking}
        openRef={choose}
        multiple={false}
        onDrop={([file]) => void begin(file)}
        classNames={{ root: classes.drop }}
        inputProps={{ 'aria-label': 'A photo of yours' }}
      >
        <p className={classes.dropText}>Let go to turn it to night</p>
      </Dropzone.FullScreen>
    </div>
  );
}

/** Taking in a photo: how far one is, what was wrong with the last one, and what begins a scene of a file. */
function useTaking() {
  const router = useRouter();
  const [taking, setTaking] = useState<Taking>();
  const [fault, setFault] = useState<string>();

  async function begin(file: File | undefined): Promise<void> {
    if (!file) return;
    const cancel = new AbortController();
    setFault(undefined);
    setTaking({ name: file.name, cancel, sent: 0 });
    const onSent = (sent: number) => setTaking((now) => now && { ...now, sent });
    try {
      const { id, note } = await api.beginScene(file, cancel.signal, onSent);
      if (note) notifications.show({ color: 'yellow', autoClose: false, message: note });
      router.push(`/scenes/${id}`);
    } catch (error) {
      setTaking(undefined);
      if (error instanceof ApiError) setFault(`${file.name}: ${error.message}`);
      else if (!cancel.signal.aborted) throw error;
    }
  }
  return { taking, fault, setFault, begin };
}

const Fault = ({ children }: PropsWithChildren) => (
  <p role="alert" className={classes.fault}>
    {children}
  </p>
);

interface BeginningProps {
  onChoose: () => void;
  /** Absent while there is no scene yet. */
  onSeveral?: () => void;
}

/** What the wall is for, while nothing else is done on it. */
function Beginning({ onChoose, onSeveral }: BeginningProps) {
  return (
    <>
      <span className={classes.hint}>Drop a photo anywhere to begin a scene</span>
      <Button size="compact-sm" onClick={onChoose}>
        Choose a photo
      </Button>
      {onSeveral && (
        <Button size="compact-sm" variant="default" onClick={onSeveral}>
          Send out several
        </Button>
      )}
    </>
  );
}

/** Whether a scene is among the chosen, and what turns that over. */
function choiceOf(id: string, chosen: string[], setChosen: (chosen: string[]) => void) {
  const isChosen = chosen.includes(id);
  const onToggle = () => {
    if (isChosen) setChosen(chosen.filter((other) => other !== id));
    else if (chosen.length < MOST_TOGETHER) setChosen([...chosen, id]);
  };
  return { chosen: isChosen, onToggle };
}

interface ChoosingProps {
  count: number;
  onAll: () => void;
  onSend: () => void;
  onEnd: () => void;
}

/** What is done with the scenes that are chosen. */
function Choosing({ count, onAll, onSend, onEnd }: ChoosingProps) {
  return (
    <>
      <span className={classes.hint}>
        {count === 0 ? 'Choose what goes out: click its picture' : `${count} chosen`}
      </span>
      <Button size="compact-sm" variant="default" onClick={onAll}>
        All of them
      </Button>
      <Button size="compact-sm" disabled={count === 0} onClick={onSend}>
        Send out…
      </Button>
      <Button size="compact-sm" variant="default" onClick={onEnd}>
        Never mind
      </Button>
    </>
  );
}

function Underway({ name, cancel, sent }: Taking) {
  return (
    <span role="status" className={classes.taking}>
      {sent < 1 ? (
        <Progress className={classes.sent} value={100 * sent} aria-label="Sent to the server" />
      ) : (
        <Loader size={14} />
      )}
      {sent < 1 ? 'Taking in' : 'Opening'} {name}
      <Button size="compact-xs" variant="default" onClick={() => cancel.abort()}>
        Cancel
      </Button>
    </span>
  );
}
