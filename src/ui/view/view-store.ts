import { createStore, type StoreApi } from 'zustand/vanilla';
import type { DeskView } from '../desk/desk-view';
import type { StepName, StepViews } from '../steps';
import type { OfferView } from '../editor/offer-view';
import type { LookView } from './look';
import type { Slice } from './slice';

/** What a window shows; no part of the document. Steps and desk bring their own parts of it. */
export type ViewState = LookView &
  OfferView &
  DeskView &
  StepViews & {
    step: StepName;
    set: (values: Partial<Omit<ViewState, 'set'>>) => void;
  };

export type ViewStore = StoreApi<ViewState>;

/** All of several slices' own values of a name. */
const merged = <Name extends 'initial' | 'escape' | 'leave'>(slices: readonly Slice[], name: Name) =>
  Object.assign({}, ...slices.map((slice) => slice[name])) as Partial<ViewState>;

/** What Escape lets go of, and what ends when a step is opened. */
export const escaped = (slices: readonly Slice[]) => merged(slices, 'escape');
export const left = (slices: readonly Slice[]) => merged(slices, 'leave');

/** A view's state, of slices. `step` is the one that is open at first. */
export function createViewStore(slices: readonly Slice[], step: StepName): ViewStore {
  return createStore<ViewState>((set) => ({
    ...(merged(slices, 'initial') as ViewState),
    step,
    set: (values) =>
      set(Object.assign({}, ...slices.map(({ also }) => also?.(values)), values) as Partial<ViewState>),
  }));
}
