import { deskView } from '../desk/desk-view';
import { offerView } from '../editor/offer-view';
import { STEPS } from '../steps';
import { lookView } from './look';
import type { Slice } from './slice';

/** Every part of the view's state. */
export const SLICES: readonly Slice[] = [
  lookView,
  offerView,
  ...Object.values(STEPS).map(({ view }) => view as Slice),
  deskView,
];
