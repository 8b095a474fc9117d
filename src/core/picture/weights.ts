import { MIDDLE_GREY } from '../color/middle-grey';
import { times, type Rgb } from '../color/rgb';
import { gelColor } from '../fixture/gel-color';
import { blackbodyRgb } from '../color/planckian';
import { CAMERA_WHITE } from '../color/camera-white';
import { meteredGain } from '../night/metered-gain';
import { ambientLux } from '../night/hour';
import { faderGain } from '../fields/fader-gain';
import type { Night, Scene } from '../scene/schema';
import { burns, type Layer } from './layers';

/**
 * What land gets of the night's ambient light, over what the plate under the same exposure would say: by day the sun
 * lights it beside the sky, by night the sky alone. Lamps are set against this share.
 */
const LAND_SHARE = 0.36;

/** Scattering coefficient of the air at a haze of 1, per metre. */
const THICKEST_HAZE = 0.02;

/** Light that endless haze sends to the eye under the ambient light, as a plate's would be under the same exposure. */
const HAZE_LIGHT = 0.3;

/** Light of the picture that one lux on a plate of middle grey gives, under a night's exposure. */
export function lightPerLux({ exposure, hour }: Pick<Night, 'exposure' | 'hour'>): number {
  return (LAND_SHARE * 2 ** exposure) / ambientLux(hour);
}

/** Gains on the night's own light. What stands behind a skyline was weighed with it: there both are 1. */
export const nightGains = (
  { ambient, sky }: Pick<Weights, 'ambient' | 'sky'>,
  skied: boolean,
): Pick<Weights, 'ambient' | 'sky'> => (skied ? { ambient: 1, sky: 1 } : { ambient, sky });

/** What the parts of a picture are multiplied by before they are added. */
export interface Weights {
  /** Gains on the night's base, of land and of sky. */
  ambient: number;
  sky: number;
  mist: Mist;
  layers: LayerWeights[];
}

/** Haze over distance: what lies behind it fades by `exp(-perMetre * distance)`, and its own light stands in. */
export interface Mist {
  color: Rgb;
  perMetre: number;
}

/** Weights of one layer: spill is lux on the plate; shine, air and source are cd/m2. */
export interface LayerWeights {
  spill: Rgb;
  shine: Rgb;
  air: Rgb;
  source: Rgb;
}

/** The haze of a scene under its ambient light. */
export function mistOf({ night, desk }: Pick<Scene, 'night' | 'desk'>): Mist {
  const glow = HAZE_LIGHT * faderGain(desk.ambient) * 2 ** (night.exposure + night.hazeGlow);
  return {
    color: times(blackbodyRgb(night.hazeKelvin, CAMERA_WHITE), glow),
    perMetre: THICKEST_HAZE * night.haze ** 2 * faderGain(desk.haze),
  };
}

/**
 * Weights of a scene. The camera is set so that the plate, as it is metered, under ambient light alone shows `night.exposure` stops below
 * the day; the hour's lux then say how bright a lamp is beside it.
 *
 * @param medianLuminance median luminance of the plate's land
 */
export function pictureWeights(
  scene: Pick<Scene, 'night' | 'desk' | 'circuits'>,
  layers: readonly Layer[],
  medianLuminance: number,
): Weights {
  const { night, desk } = scene;
  const perLux = lightPerLux(night);
  const gain = meteredGain(night, medianLuminance);
  const perNit = (Math.PI * gain * perLux * medianLuminance) / MIDDLE_GREY;
  const ambient = faderGain(desk.ambient);
  const mist = mistOf(scene);
  const haze = mist.perMetre;
  return {
    ambient,
    sky: ambient * faderGain(desk.sky),
    mist,
    layers: layers.map(({ circuit, gel, moon }) => {
      const master = moon ? 1 : faderGain(desk.master);
      const lit = burns(circuit, scene) ? faderGain(circuit.level) * master : 0;
      const color = times(gelColor(gel, circuit.warmth), lit);
      const spill = faderGain(circuit.spillLevel);
      return {
        spill: times(color, spill * gain * perLux),
        shine: times(color, spill * perNit),
        air: times(color, spill * perNit * haze),
        source: times(color, faderGain(circuit.lampLevel) * perNit),
      };
    }),
  };
}
