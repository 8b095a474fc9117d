import { asc, eq, inArray } from 'drizzle-orm';
import type { OutputOrder } from '@/core/output/output-order';
import { SCENE_VERSION } from '@/core/scene/schema';
import type { Db } from '@/db/client';
import { outputs } from '@/db/schema';

export type OutputRow = typeof outputs.$inferSelect;

/** The outputs of an installation, as they outlive a server. */
export interface OutputStore {
  add: (row: Pick<OutputRow, 'id' | 'fileName' | 'mime'>, order: OutputOrder) => void;
  /** Notes how one stands; what it was made from is let go when it has ended. */
  set: (id: string, now: Partial<Pick<OutputRow, 'state' | 'bytes' | 'reason'>>) => void;
  drop: (ids: string[]) => void;
  /** All of them, the oldest first, without what they are made from. */
  all: () => Omit<OutputRow, 'order'>[];
  /** What one is made from; undefined where its scenes are of another version of the format. */
  orderOf: (id: string) => OutputOrder | undefined;
}

const TOLD = {
  id: outputs.id,
  version: outputs.version,
  state: outputs.state,
  fileName: outputs.fileName,
  mime: outputs.mime,
  bytes: outputs.bytes,
  reason: outputs.reason,
  createdAt: outputs.createdAt,
};

export function createOutputStore(db: Db): OutputStore {
  return {
    add: (row, order) =>
      void db
        .insert(outputs)
        .values({ ...row, order, version: SCENE_VERSION, state: 'waiting', createdAt: Date.now() })
        .run(),
    set(id, now) {
      const goesOn = now.state === 'waiting' || now.state === 'running';
      const values = goesOn ? now : { ...now, order: null };
      db.update(outputs).set(values).where(eq(outputs.id, id)).run();
    },
    drop: (ids) => void db.delete(outputs).where(inArray(outputs.id, ids)).run(),
    all: () => db.select(TOLD).from(outputs).orderBy(asc(outputs.createdAt)).all(),
    orderOf(id) {
      const row = db.select().from(outputs).where(eq(outputs.id, id)).get();
      return (row?.version === SCENE_VERSION && row.order) || undefined;
    },
  };
}
