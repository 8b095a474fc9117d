import type { FileHandle } from 'node:fs/promises';
import type { OutputOrder } from '@/core/output/output-order';
import type { Renderer } from '@/engine/renderer';
import type { Workspace } from '../../assets/workspace';

/** What an order is carried out with. */
export interface OrderMeans {
  space: Pick<Workspace, 'dataDir' | 'plates'>;
  renderer: Renderer;
  signal: AbortSignal;
  /** Gets 0 to 1. */
  onProgress: (done: number) => void;
  /** A file beside the output, which goes when it is done. */
  temporary: string;
}

/** A kind of order: what its file is called, and how it is written. */
export interface OrderKind<Order extends OutputOrder> {
  file: (order: Order) => { name: string; mime: string };
  /** Writes to a file that is open and empty. Returns what is missing in it, in words. */
  write: (file: FileHandle, order: Order, means: OrderMeans) => Promise<string | undefined>;
}
