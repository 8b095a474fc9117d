'use client';

import { Button, FileButton } from '@mantine/core';
import { useState } from 'react';
import { setLutStrength, setNight } from '@/core/scene/commands';
import { RANGES } from '@/core/fields/ranges';
import { api } from '@/state/session/api';
import { NumberRow } from '../../controls/number-row';
import { useScene } from '../../editor/editor-context';
import own from './night.module.css';
import classes from '../../worksheet/worksheet.module.css';

const LONGEST = 80;

/** Taking in a table: whether one is under way, what was wrong with the last one, and what takes a file. */
function useTaking() {
  const id = useScene((state) => state.id);
  const run = useScene((state) => state.run);
  const strength = useScene(({ scene }) => scene.night.lut?.strength ?? 1);
  const [fault, setFault] = useState<string>();
  const [taking, setTaking] = useState(false);

  async function take(file: File | null): Promise<void> {
    if (!file) return;
    setFault(undefined);
    setTaking(true);
    try {
      const { asset } = await api.takeLut(id, file);
      const bare = file.name.replace(/\.cube$/i, '').trim();
      const name = bare.slice(0, LONGEST) || 'table';
      run(setNight(`Look-up table: ${name}`, { lut: { asset, name, strength } }));
    } catch (error) {
      setFault(`${file.name}: ${(error as Error).message}`);
    } finally {
      setTaking(false);
    }
  }
  return { fault, taking, take };
}

/** A colour look-up table from a file, with its strength. */
export function LutPart() {
  const lut = useScene(({ scene }) => scene.night.lut);
  const change = useScene((state) => state.change);
  const run = useScene((state) => state.run);
  const { fault, taking, take } = useTaking();
  return (
    <>
      {lut && (
        <NumberRow
          label="Strength"
          value={lut.strength}
          range={RANGES.strength}
          initial={1}
          onChange={(strength) => change('night lut', setLutStrength(strength))}
        />
      )}
      <div className={own.line2}>
        <span>{lut?.name ?? 'A .cube file, of curves or of up to 65 entries a side'}</span>
        {lut && (
          <Button
            size="compact-xs"
            variant="subtle"
            color="gray"
            onClick={() => run(setNight('Take the look-up table out', { lut: null }))}
          >
            Take out
          </Button>
        )}
      </div>
      <div className={classes.actions}>
        <FileButton
          accept=".cube"
          onChange={(file) => void take(file)}
          inputProps={{ 'aria-label': 'A look-up table of yours' }}
        >
          {(props) => (
            <Button size="compact-xs" variant="default" loading={taking} {...props}>
              {lut ? 'Another file' : 'Choose a file'}
            </Button>
          )}
        </FileButton>
      </div>
      {fault && (
        <p role="alert" className={own.fault}>
          {fault}
        </p>
      )}
    </>
  );
}
