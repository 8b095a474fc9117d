'use client';

import { ActionIcon, Button, FileButton, UnstyledButton } from '@mantine/core';
import { IconDownload, IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { framedSize } from '@/core/frame/frame';
import { blendNights } from '@/core/night/blend-nights';
import { NOCTURNES, type Nocturne } from '@/core/night/nocturnes';
import { setNight } from '@/core/scene/commands';
import { takeNocturne } from '@/core/scene/sky-commands';
import { RANGES } from '@/core/fields/ranges';
import type { Night } from '@/core/scene/schema';
import { api } from '@/state/session/api';
import { NameToKeep } from '../../controls/name-to-keep';
import { useKeptList } from '../../controls/use-kept-list';
import { NumberRow } from '../../controls/number-row';
import { MadeImage } from '../../controls/made-image';
import { useScene, useSession } from '../../editor/editor-context';
import own from './night.module.css';
import classes from '../../worksheet/worksheet.module.css';

/** Ready-made nights, each shown on this very plate with the lamps that burn in it. */
export function NocturneWall() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <UnstyledButton className={classes.fold} aria-expanded={open} onClick={() => setOpen(!open)}>
        Start from a nocturne
      </UnstyledButton>
      {open && <Wall />}
    </>
  );
}

const loadNocturnes = () => api.nocturnes();

/** A nocturne that was taken: where it came from, and how far it goes. */
interface Taken {
  from: Night;
  nocturne: Nocturne;
  strength: number;
}

function Wall() {
  const session = useSession();
  const run = useScene((state) => state.run);
  const { items: kept, fault, attempt } = useKeptList(loadNocturnes);
  const [taken, setTaken] = useState<Taken>();

  function take(nocturne: Nocturne): void {
    setTaken({ from: session.scene.getState().scene.night, nocturne, strength: 1 });
    run(takeNocturne(nocturne));
  }

  return (
    <div className={own.wall}>
      <div className={classes.nocturnes}>
        {NOCTURNES.map((nocturne) => (
          <Choice key={nocturne.id} nocturne={nocturne} onTake={take} />
        ))}
        {kept.map((nocturne) => (
          <Kept
            key={nocturne.id}
            nocturne={nocturne}
            onTake={take}
            onForget={() => void attempt(() => api.deleteNocturne(nocturne.id))}
          />
        ))}
      </div>
      {taken && <Strength taken={taken} onChange={(strength) => setTaken({ ...taken, strength })} />}
      <NameToKeep
        label="Name of the nocturne"
        placeholder="Keep this night as …"
        className={own.line2}
        onKeep={(name) => attempt(() => api.keepNocturne(name, session.scene.getState().scene.night))}
      />
      <div className={classes.actions}>
        <FileButton
          accept=".nocturne"
          onChange={(file) => file && void attempt(() => api.takeNocturne(file))}
          inputProps={{ 'aria-label': 'A nocturne of yours' }}
        >
          {(props) => (
            <Button size="compact-xs" variant="default" {...props}>
              Bring one in from a file
            </Button>
          )}
        </FileButton>
      </div>
      {fault && (
        <p role="alert" className={own.fault}>
          {fault}
        </p>
      )}
    </div>
  );
}

interface KeptProps {
  nocturne: Nocturne;
  onTake: (nocturne: Nocturne) => void;
  onForget: () => void;
}

/** A nocturne of one's own: it can be saved as a file, and forgotten. */
function Kept({ nocturne, onTake, onForget }: KeptProps) {
  return (
    <div className={own.nocturne}>
      <Choice nocturne={nocturne} onTake={onTake} />
      <div className={own.remove}>
        <ActionIcon
          component="a"
          href={api.nocturneFile(nocturne.id)}
          size={16}
          variant="filled"
          color="dark"
          aria-label={`Save ${nocturne.name} as a file`}
        >
          <IconDownload size={11} />
        </ActionIcon>
        <ActionIcon
          size={16}
          variant="filled"
          color="dark"
          aria-label={`Forget ${nocturne.name}`}
          onClick={onForget}
        >
          <IconX size={11} />
        </ActionIcon>
      </div>
    </div>
  );
}

/** How far the night goes from where it was to the nocturne that was taken. */
function Strength({ taken, onChange }: { taken: Taken; onChange: (strength: number) => void }) {
  const change = useScene((state) => state.change);
  const { from, nocturne } = taken;
  return (
    <NumberRow
      label={nocturne.name}
      value={taken.strength}
      range={RANGES.strength}
      initial={1}
      onChange={(strength) => {
        onChange(strength);
        const night = blendNights(from, nocturne.night, strength);
        change('nocturne strength', setNight(`${nocturne.name}: strength`, night));
      }}
    />
  );
}

function Choice({ nocturne, onTake }: { nocturne: Nocturne; onTake: (nocturne: Nocturne) => void }) {
  const id = useScene((state) => state.id);
  const plate = useScene(({ scene }) => scene.plate);
  const frame = useScene(({ scene }) => scene.frame);
  const { width, height } = framedSize(plate, frame);
  const lit = useScene(({ scene }) => scene.fixtures.length);
  // The wall shows the scene as it was when it was opened; a look at another night does not make it anew.
  const [version] = useState(() => `${lit}-${Date.now()}`);
  return (
    <UnstyledButton onClick={() => onTake(nocturne)}>
      <MadeImage
        src={api.thumbnail(id, nocturne.id, version)}
        alt=""
        style={{ aspectRatio: `${width} / ${height}` }}
      />
      {nocturne.name}
    </UnstyledButton>
  );
}
