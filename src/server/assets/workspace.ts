import { join } from 'node:path';
import { openDb, type Db } from '@/db/client';
import { createPlateReader, type PlateReader } from '../plates/plate-codes';
import { keepTidy } from './tidy';
import { createTurns, type Turns } from '../http/turns';

/** Where everything of one installation lives. */
export interface Workspace {
  db: Db;
  dataDir: string;
  /** Its plates, decoded. */
  plates: PlateReader;
  /** Decodes one photo after the other. */
  decoding: Turns;
}

const shared = globalThis as { sundewWorkspace?: Workspace };

/** The folder named by SUNDEW_DATA, or `data` beside the application. */
export function dataDirectory(): string {
  return process.env.SUNDEW_DATA ?? join(/* turbopackIgnore: true */ process.cwd(), 'data');
}

/** Opens a workspace on a data folder. */
export function openWorkspace(dataDir: string): Workspace {
  return { db: openDb(dataDir), dataDir, plates: createPlateReader(dataDir), decoding: createTurns(1) };
}

/** The running server's workspace, opened once, and kept tidy from then on. */
export function workspace(): Workspace {
  if (!shared.sundewWorkspace) {
    shared.sundewWorkspace = openWorkspace(dataDirectory());
    keepTidy(shared.sundewWorkspace);
  }
  return shared.sundewWorkspace;
}
