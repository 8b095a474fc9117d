import type { GroundPlan } from '@/core/scene/schema';
import { createStore, type StoreApi } from 'zustand/vanilla';

/** Steps of the worksheet, in the order of the work. */
export const STEPS = ['night', 'plan', 'fixtures', 'output'] as const;
export type Step = (typeof STEPS)[number];

/** What a window shows; not part of the document. */
export interface ViewState {
  step: Step;
  /** The chosen fixture. */
  chosen?: string;
  /** The circuit that a new fixture goes on. */
  circuit?: string;
  /** The fixture under a drag, whose light is made apart. */
  moving?: string;
  /** The horizon as it was when the drag of it began. */
  surveyAt?: GroundPlan['horizon'];
  /** The day is shown instead of the night. */
  day: boolean;
  /** The next click on the picture picks a gel off it. */
  picking: boolean;
  set: (values: Partial<Omit<ViewState, 'set'>>) => void;
}

export type ViewStore = StoreApi<ViewState>;

export function createViewStore(): ViewStore {
  return createStore<ViewState>((set) => ({
    step: 'fixtures',
    day: false,
    picking: false,
    set: (values) => set(values),
  }));
}
