'use client';

import { Button } from '@mantine/core';
import { useState } from 'react';
import { TABLE_SIDES, type TableSide } from '@/core/output/night-table';
import type { NightTable } from '@/state/session/answers';
import { api, ApiError } from '@/state/session/api';
import { useScene, useSession } from '../../editor/editor-context';
import { Choice } from '../../controls/choice';
import { downloadText } from '../../sending/use-sending';
import classes from '../../worksheet/worksheet.module.css';

const SIDES = TABLE_SIDES.map((side) => ({
  value: String(side),
  label: `${side} × ${side} × ${side}`,
}));

/** How far a table is off, in words. */
function offWords({ off, missing }: NightTable): string {
  const beside = `Beside this night without lamps it is off by ${off.mean.toFixed(1)} of 255 on average, and 95 of 100 by less than ${off.most.toFixed(0)}.`;
  return missing.length > 0 ? `${beside} Not in it: ${missing.join(', ')}.` : beside;
}

/** The night as a `.cube` file, for photos in other programs. */
export function TablePart() {
  const { flush } = useSession();
  const id = useScene((state) => state.id);
  const title = useScene(({ scene }) => scene.title);
  const [side, setSide] = useState<TableSide>(33);
  const [isMaking, setIsMaking] = useState(false);
  const [table, setTable] = useState<NightTable>();
  const [fault, setFault] = useState<string>();

  async function save(): Promise<void> {
    setIsMaking(true);
    setFault(undefined);
    setTable(undefined);
    try {
      await flush();
      const made = await api.nightTable(id, side);
      downloadText(made.text, `${title}.cube`);
      setTable(made);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      setFault(error.message);
    } finally {
      setIsMaking(false);
    }
  }

  return (
    <>
      <p className={classes.hint}>
        The darkened colours, without lamps, as a .cube file that other programs lay over their photos.
      </p>
      <Choice
        caption="Entries"
        data={SIDES}
        value={String(side)}
        onChange={(chosen) => setSide(Number(chosen) as TableSide)}
      />
      <div className={classes.actions}>
        <Button size="compact-sm" loading={isMaking} onClick={() => void save()}>
          Save the table
        </Button>
      </div>
      <p className={classes.hint} role="status">
        {table && offWords(table)}
        {fault && <span role="alert">{fault}</span>}
      </p>
    </>
  );
}
