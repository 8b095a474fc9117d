'use client';

import { ActionIcon, Button, Checkbox, Group, Modal, Text } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import Link from 'next/link';
import { useState, type CSSProperties, type PointerEvent } from 'react';
import type { SceneSummary } from '@/core/scene/opened-scene';
import { api } from '@/state/session/api';
import { MadeImage } from '../controls/made-image';
import { ServedImage } from '../controls/served-image';
import classes from './scenes.module.css';

interface SceneCardProps {
  scene: SceneSummary;
  onGone: () => void;
  onFault: (message: string) => void;
  /** Set while scenes are chosen: whether this one is, and what turns that over. */
  choosing?: { chosen: boolean; onToggle: () => void };
}

/** A scene on the wall. */
export function SceneCard({ scene, onGone, onFault, choosing }: SceneCardProps) {
  const [asking, setAsking] = useState(false);
  const { id, title, fixtures } = scene;
  return (
    <article className={classes.card} data-chosen={choosing?.chosen || undefined}>
      {choosing && (
        <Checkbox
          className={classes.choose}
          aria-label={`Choose ${title}`}
          checked={choosing.chosen}
          onChange={choosing.onToggle}
        />
      )}
      <CardPicture scene={scene} choosing={choosing} />
      <div className={classes.caption}>
        <h2>
          <Link href={`/scenes/${id}`}>{title}</Link>
        </h2>
        <span>{fixtures === 0 ? 'nothing lit yet' : `${fixtures} lit`}</span>
        <ActionIcon
          className={classes.remove}
          variant="subtle"
          color="gray"
          size="sm"
          aria-label={`Delete ${title}`}
          onClick={() => setAsking(true)}
        >
          <IconTrash size={14} />
        </ActionIcon>
      </div>
      <DeleteDialog opened={asking} onKeep={() => setAsking(false)} {...{ scene, onGone, onFault }} />
    </article>
  );
}

/** A scene as it looks: day until its night is made, then wiped from day to night under the pointer. */
function CardPicture({ scene, choosing }: Pick<SceneCardProps, 'scene' | 'choosing'>) {
  const [wipe, setWipe] = useState(0);
  const [night, setNight] = useState<number>();
  const { id, title, revision, width, height } = scene;
  const follow = (event: PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    setWipe(1 - (event.clientX - box.left) / box.width);
  };
  return (
    <Link
      href={`/scenes/${id}`}
      className={classes.thumbnail}
      data-night={night === revision || undefined}
      style={{ '--wipe': wipe, aspectRatio: `${width} / ${height}` } as CSSProperties}
      onPointerMove={follow}
      onPointerLeave={() => setWipe(0)}
      onClick={(event) => {
        if (!choosing) return;
        event.preventDefault();
        choosing.onToggle();
      }}
      aria-label={`Open ${title}`}
    >
      <MadeImage
        key={revision}
        src={api.thumbnail(id, 'night', revision)}
        alt={`${title} by night`}
        onLoad={() => setNight(revision)}
      />
      <ServedImage className={classes.day} src={api.thumbnail(id, 'day', revision)} alt="" />
      <span className={classes.edge} />
    </Link>
  );
}

type DeleteDialogProps = Pick<SceneCardProps, 'scene' | 'onGone' | 'onFault'> & {
  opened: boolean;
  onKeep: () => void;
};

/** Asks before a scene is deleted. */
function DeleteDialog({ scene: { id, title }, opened, onKeep, onGone, onFault }: DeleteDialogProps) {
  const remove = () =>
    api.deleteScene(id).then(onGone, (error: Error) => {
      onKeep();
      onFault(error.message);
    });
  return (
    <Modal opened={opened} onClose={onKeep} title={`Delete “${title}”?`}>
      <Text size="sm" c="dimmed">
        The scene and everything decided in it will be gone. Your photo on disk is not touched.
      </Text>
      <Group mt="md" justify="flex-end">
        <Button variant="default" onClick={onKeep}>
          Keep it
        </Button>
        <Button onClick={() => void remove()}>Delete</Button>
      </Group>
    </Modal>
  );
}
