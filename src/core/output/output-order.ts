import type { Scene } from '../scene/schema';
import type { OutputChoice } from './output-formats';
import type { Switching } from './switching';

/** What is sent out: documents as they were when it was ordered, and how they are written. */
export interface OutputOrders {
  /** One finished picture. */
  picture: { kind: 'picture'; scene: Scene; choice: OutputChoice };
  /** Pictures of several scenes, in one ZIP. */
  pictures: { kind: 'pictures'; scenes: Scene[]; choice: OutputChoice };
  /** The lights of a scene coming on. */
  switching: { kind: 'switching'; scene: Scene; switching: Switching };
}

export type OutputOrder = OutputOrders[keyof OutputOrders];

/** Most scenes that go out together. */
export const MOST_TOGETHER = 60;
