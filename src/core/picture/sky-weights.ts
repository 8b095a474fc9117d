import { times, type Rgb } from '../color/rgb';
import { blackbodyRgb } from '../color/planckian';
import { CAMERA_WHITE } from '../color/camera-white';
import { gelColor } from '../fixture/gel-color';
import { FULL_MOON_LUX } from '../light/moon-light';
import { TOWN_GLOW } from '../night/hour';
import { faderGain } from '../fields/fader-gain';
import { RANGES } from '../fields/ranges';
import type { Scene } from '../scene/schema';
import type { SkyWeights } from '../sky/behind-skyline';
import { skyDirection } from '../sky/direction';
import { lightPerSkyNit } from '../sky/dome-light';
import { phaseLight } from '../sky/moon-disc';
import { burns, type Layer } from './layers';
import { mistOf } from './weights';

/** How much brighter than by their lux stars are shown: a night's exposure for lamps would leave a dozen of them. */
const STARS = 10;

/** Light of the picture of the moon's bright land: no film holds its 2,500 cd/m2 beside a street, so it is shown as prints show it. */
const HELD_DISC = 1.3;

/** Share of the moon's light that the haze around it gives on, at a halo of 1. */
const HALO = 0.12;

/** Lumens of lamps in the picture that give clouds as much as the whole town does: around each of them stand others like it. */
const A_TOWN = 25_000;

/** How much brighter haze is before the sky, whose light it gives on, than before land. */
const BEFORE_SKY = 2.6;

/** How much brighter than level ground's share clouds show what comes from below. */
const ON_CLOUDS = 2;

/** A layer with all that its lamps send out, lumens. */
export type LitLayer = Layer & { flux: number };

/** What lamps give to a cloud overhead, cd/m2. */
function underClouds(scene: Pick<Scene, 'circuits' | 'desk' | 'sky'>, layers: readonly LitLayer[]): Rgb {
  const sum = [0, 0, 0];
  for (const { circuit, gel, moon, flux } of layers) {
    if (moon || !burns(circuit, scene)) continue;
    const level = faderGain(circuit.level) * faderGain(circuit.spillLevel) * faderGain(scene.desk.master);
    gelColor(gel, circuit.warmth).forEach((value, c) => (sum[c] += value * level * flux));
  }
  const { under } = scene.sky.clouds;
  const share =
    (ON_CLOUDS * TOWN_GLOW * faderGain(under <= RANGES.skyStops.min ? RANGES.level.min : under)) / Math.PI;
  return times([sum[0], sum[1], sum[2]], share / A_TOWN);
}

/** What the sky of a scene is weighed with. */
export function skyWeights(
  scene: Pick<Scene, 'night' | 'desk' | 'circuits' | 'sky' | 'moon'>,
  layers: readonly LitLayer[],
): SkyWeights {
  const { night, desk, sky, moon } = scene;
  const perNit = lightPerSkyNit(night);
  const ambient = faderGain(desk.ambient);
  const shines = faderGain(desk.moon);
  const mist = mistOf(scene);
  const color = blackbodyRgb(moon.kelvin, CAMERA_WHITE);
  return {
    ambient,
    sky: ambient * faderGain(desk.sky) * perNit,
    under: times(underClouds(scene, layers), perNit),
    mist: { ...mist, color: times(mist.color, BEFORE_SKY * faderGain(desk.sky)) },
    stars: STARS * perNit * faderGain(desk.stars),
    moon:
      shines > 0
        ? {
            toward: skyDirection(moon),
            look: sky.moon,
            disc: times(color, HELD_DISC * shines),
            light: times(color, perNit * FULL_MOON_LUX * phaseLight(sky.moon.phase) * shines),
            haze: HALO * sky.moon.halo,
          }
        : undefined,
  };
}
