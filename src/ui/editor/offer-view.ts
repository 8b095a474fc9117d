import type { FirstGuess } from '@/state/actions/first-guess';
import type { Slice } from '../view/slice';

export interface OfferView {
  /** The ground plan that was guessed of a new photo and is offered over the picture. */
  offer?: FirstGuess;
  /** It was used or refused: it does not come again. */
  answered: boolean;
}

export const offerView: Slice<OfferView> = {
  initial: { answered: false },
  escape: { offer: undefined },
};
