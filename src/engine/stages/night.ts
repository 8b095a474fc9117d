import type { CubeLut } from '@/core/grade/cube-lut';
import { gradeOf, gradeTables, GRADE_TABLES, isPlain } from '@/core/grade/grade';
import { ambientLight } from '@/core/night/ambient-light';
import { nightBase, type GradeKit } from '@/core/night/night-base';
import { surroundings } from '@/core/night/surroundings';
import { meteredGain } from '@/core/night/metered-gain';
import { toneRange } from '@/core/night/tone-range';
import { cameraOf } from '@/core/picture/camera-of';
import { addContact } from '@/core/placed/contact-shadow';
import { surroundOf } from '@/core/picture/surround-of';
import type { Night, Scene } from '@/core/scene/schema';
import { LUT_STRIDE } from '../kernels/picture-kernels';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { View } from '../graph/view';
import { evened } from './even';
import { matte } from './matte';
import { cardAt, cutoutAt, eyeIn } from './cutout';
import { relief } from './relief';
import { survey } from './survey';

const changed = (scene: Scene) => scene.places.filter(({ stops }) => stops !== 0);

/** What was placed and stands on something, and keeps the sky's light off it. */
const standingOn = ({ placed }: Scene) => placed.filter(({ contact, hangs }) => contact > 0 && !hangs);

/** Factors on ambient light: of darkened surroundings, of places, and at the feet of what was placed. */
export const open = stage({
  name: 'open',
  part: 'the night',
  settings: ({ scene, memo }) => ({
    surround: surroundOf(scene),
    places: changed(scene).map(({ outside, stops }) => ({ outside, stops })),
    standing: standingOn(scene).map((placed) => ({
      ...{ card: cardAt({ scene, memo }, placed), strength: placed.contact },
    })),
    eye: eyeIn(scene),
  }),
  inputs: (at) => ({
    places: changed(at.scene).map((place) => matte(at, place.matte)),
    relief: standingOn(at.scene).length > 0 ? relief(at) : undefined,
    feet: standingOn(at.scene).map((placed) => cutoutAt(smallOf(at), placed)),
  }),
  prepare: ({ settings: { standing, eye, ...plain }, inputs }) => ({
    ...plain,
    camera: cameraOf(eye),
    contacts: standing.map(({ card, strength }, k) => ({
      ...{ card, strength, height: card.height },
      width: inputs.feet[k].footing[0] * card.width,
    })),
  }),
  planes: (pixels) => ({ factor: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, { prepared: { surround, places, camera, contacts } }, { region, cut }) {
    const factors = cut(out.factor);
    if (surround) surroundings(factors, region, surround);
    else factors.fill(1);
    places.forEach(({ outside, stops }, k) => {
      const share = cut(inputs.places[k].coverage);
      for (let i = 0; i < factors.length; i++) {
        factors[i] *= 2 ** (stops * (outside ? 1 - share[i] : share[i]));
      }
    });
    for (const contact of contacts) addContact(factors, cut(inputs.relief!.reach), camera, region, contact);
  },
});

/** The factors, where there are any. */
const openAt = (at: Spot) =>
  surroundOf(at.scene) || changed(at.scene).length > 0 || standingOn(at.scene).length > 0
    ? open(at)
    : undefined;

/** Tables of a grade. */
export const tables = stage({
  name: 'tables',
  part: 'the night',
  region: (at) => smallOf(at).region,
  settings: ({ scene: { night } }) => ({
    shape: night.shape,
    byTone: { stops: night.byTone.stops, strength: 1 },
  }),
  inputs: () => ({}),
  planes: () => ({ data: GRADE_TABLES.length }),
  pace: 'quick',
  whole: true,
  newest: () => '',
  run(out, _, { prepared: settings }) {
    gradeTables(out.data, settings);
  },
});

/** A look-up table, its entries padded to LUT_STRIDE floats. */
export const lut = stage({
  name: 'lut',
  part: 'the night',
  region: (at) => smallOf(at).region,
  settings: (_, asset: string) => asset,
  inputs: () => ({}),
  load: (assets, asset, _, signal) => assets.lut(asset, signal),
  prepare: ({ loaded: { data: _data, title: _title, ...form } }) => form,
  facts: (form) => form,
  planes: (_, { size, dimensions }) => ({ data: LUT_STRIDE * size ** dimensions }),
  pace: 'heavy',
  whole: true,
  run(out, _, { loaded }) {
    const entries = out.data.length / LUT_STRIDE;
    for (let i = 0; i < entries; i++) out.data.set(loaded!.subarray(3 * i, 3 * i + 3), LUT_STRIDE * i);
  },
});

type LutView = View<'data', Omit<CubeLut, 'data' | 'title'>>;

const lutIn = ({ data, facts }: LutView): CubeLut => ({
  ...facts,
  title: '',
  data: data.filter((_, i) => i % LUT_STRIDE < 3),
});

/** The survey that a night is metered on, where it is. */
const meterOf = (at: Spot) => (at.scene.night.meter > 0 ? survey(at) : undefined);

/** The night's ambient light on a plate as it is metered. */
const meteredLight = (night: Night, metered?: View<'medianLuminance'>) =>
  ambientLight(night, metered && meteredGain(night, metered.medianLuminance[0]));

/** A refit that is measured anew. */
const UNFITTED = { always: true, low: 0, high: 1 };

/** Two floats: the tones of a night before it is refitted, from the small copy, so that every size is refitted alike. */
export const range = stage({
  name: 'range',
  part: 'the night',
  region: (at) => smallOf(at).region,
  settings: ({ scene }): Night => ({ ...ofGround(scene.night), refit: UNFITTED, lut: null }),
  inputs: (at) => ({ plate: evened(at), open: openAt(at), tables: tables(at), survey: meterOf(at) }),
  prepare: ({ settings, inputs }) => ({ settings, light: meteredLight(settings, inputs.survey) }),
  planes: () => ({ range: 2 }),
  pace: 'quick',
  whole: true,
  newest: () => '',
  run(out, inputs, { prepared: { settings, light } }) {
    const kit = { grade: gradeOf(settings), tables: inputs.tables.data };
    const { low, high } = toneRange(inputs.plate, light, kit, inputs.open?.factor);
    out.range.set([low, high]);
  },
});

/** All of a night but what belongs to the air. */
const ofGround = (night: Night): Night => ({
  ...night,
  ...{ haze: 0, hazeGlow: 0, hazeKelvin: 0, evenOut: 0, surround: { ...night.surround, stops: 0 } },
});

/** The plate under the night's ambient light alone, graded. */
export const night = stage({
  name: 'night',
  part: 'the night',
  settings: ({ scene }) => ofGround(scene.night),
  inputs(at) {
    const own = at.scene.night;
    const graded = !isPlain(own);
    return {
      ...{ plate: evened(at), open: openAt(at), survey: meterOf(at) },
      range: own.refit.always ? range(at) : undefined,
      tables: graded ? tables(at) : undefined,
      lut: graded && own.lut && own.lut.strength > 0 ? lut(at, own.lut.asset) : undefined,
    };
  },
  prepare: ({ settings, inputs }) => ({ settings, light: meteredLight(settings, inputs.survey) }),
  planes: (pixels) => ({ r: pixels, g: pixels, b: pixels }),
  pace: 'quick',
  newest: () => '',
  run(out, inputs, { prepared: { settings, light }, kernels }, { first, count, of, cut }) {
    const [low, high] = inputs.range?.range ?? [];
    const grade = gradeOf(settings, inputs.range && { low, high });
    const graded = inputs.tables && { grade, tables: inputs.tables.data };
    if (kernels) {
      const padded = inputs.lut && { ...inputs.lut.facts, data: inputs.lut.data };
      const kit = graded && { ...graded, lut: padded };
      kernels.nightBase(out, inputs.plate, light, inputs.open?.factor, kit, first, count);
      return;
    }
    const kit: GradeKit | undefined = graded && { ...graded, lut: inputs.lut && lutIn(inputs.lut) };
    nightBase(of(out), of(inputs.plate), light, inputs.open && cut(inputs.open.factor), kit);
  },
});
