import { showCoverage } from '@/core/matte/show-coverage';
import { createDisplayCodes } from '@/core/film/display-codes';
import { developLight } from '@/core/film/develop-light';
import type { Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { exposed } from './lens';
import { matte } from './matte';

/** All light, developed: RGBA codes of 8 bits, one float's room a pixel. */
export const film = stage({
  name: 'film',
  part: 'the night',
  settings: () => undefined,
  inputs: (at) => ({ light: exposed(at) }),
  planes: (pixels) => ({ rgba: pixels }),
  pace: 'quick',
  passing: true,
  pointwise: true,
  kit: () => createDisplayCodes(255),
  run(out, { light }, { kit: codes, kernels }, { first, count, of }) {
    if (kernels) kernels.develop(out.rgba, light, first, count);
    else developLight(codesIn(of(out)), of(light), codes);
  },
});

/** The same in codes of 16 bits, for outputs: two floats' room a pixel. */
export const deepFilm = stage({
  name: 'deep film',
  part: 'the night',
  settings: () => undefined,
  inputs: (at) => ({ light: exposed(at) }),
  planes: (pixels) => ({ rgba: 2 * pixels }),
  pace: 'quick',
  passing: true,
  kit: () => createDisplayCodes(65535),
  run(out, { light }, { kit: codes }, { first, count, of }) {
    developLight(deepCodesIn(out).subarray(4 * first, 4 * (first + count)), of(light), codes);
  },
});

/** A picture with a matte shown over it. */
export const shown = stage({
  name: 'shown',
  part: 'the mattes',
  settings: ({ show }) => show!.view,
  inputs: (at) => ({ picture: film(at), matte: matte(at, at.show!.matte) }),
  planes: (pixels) => ({ rgba: pixels }),
  pace: 'quick',
  passing: true,
  pointwise: true,
  run(out, inputs, { prepared: view }, { of, cut }) {
    const codes = codesIn(of(out));
    codes.set(codesIn(of(inputs.picture)));
    showCoverage(codes, cut(inputs.matte.coverage), view);
  },
});

/** The codes of a picture, RGBA. */
export const codesIn = ({ rgba }: View<'rgba'>): Uint8ClampedArray =>
  new Uint8ClampedArray(rgba.buffer, rgba.byteOffset, rgba.byteLength);

/** The codes of a deep picture, RGBA. */
export const deepCodesIn = ({ rgba }: View<'rgba'>): Uint16Array =>
  new Uint16Array(rgba.buffer, rgba.byteOffset, 2 * rgba.length);

/** The finished picture of a spot. */
export const picture = (at: Spot) => (at.show ? shown(at) : film(at));
