import { fixtureLights } from '@/core/fixture/fixture-lights';
import { moonLight } from '@/core/light/moon-light';
import { cameraOf } from '@/core/picture/camera-of';
import type { Layer } from '@/core/picture/layers';
import type { Camera } from '@/core/geometry/camera';
import type { RELIEF_PLANES } from '@/core/relief/relief-planes';
import type { Region } from '@/core/plane/region';
import { BEYOND } from '@/core/relief/beyond-picture';
import type { Fixture, GroundPlan, Moon } from '@/core/scene/schema';
import { addLights } from '@/core/light/add-lights';
import { luminousFlux, type PointLight } from '@/core/light/point-light';
import { shines } from '@/core/plan/surfaces';
import type { RgbPlanes } from '@/core/plane/plane';
import type { Kernels } from '../kernels/kernels';
import type { Memo } from '../graph/memo';
import { smallOf, type Spot } from '../graph/spot';
import { stage } from '../graph/stage';
import type { Want } from '../graph/stage-spec';
import type { Band, View } from '../graph/view';
import { beyond } from './beyond';
import { castPlan, occludersIn, shadesAt, type CastPlan, type ShadeViews } from './shades';
import { seenPlate } from './placed';
import { landOf, type Land } from './land';
import { relief } from './relief';

/** What gives light together: fixtures, or the moon. */
export type Lamps = Pick<Layer, 'fixtures' | 'moon'>;

/** Of lamps, what shapes their light. Gels and faders only weigh it, mattes hold it back later. */
export interface LampSettings extends Land {
  fixtures: Fixture[];
  moon?: Pick<Moon, 'azimuth' | 'elevation'>;
}

const NO_GEL = { from: 'kelvin', kelvin: 0, color: [1, 1, 1] } satisfies Fixture['gel'];

const shaping = (fixture: Fixture): Fixture => ({
  ...fixture,
  ...{ id: '', name: '', circuit: '', gel: NO_GEL, on: undefined, behind: undefined, only: undefined },
});

/** Of fixtures that stay the same it is the same object. */
const shapingOfAll = (fixtures: Fixture[], memo: Memo) => fixtures.map((fixture) => memo(shaping, fixture));

export const lampSettings = (at: Spot, { fixtures, moon }: Lamps): LampSettings => ({
  ...landOf(at),
  fixtures: at.memo(shapingOfAll, fixtures),
  moon: moon && { azimuth: moon.azimuth, elevation: moon.elevation },
});

/** Lights in the world, with what casts shadows there. */
export interface Throw {
  camera: Camera;
  cast: CastPlan;
  lights: PointLight[];
}

/** @param small the small copy of the plate */
export function throwOf(
  land: Land,
  fixtures: readonly Fixture[],
  small: RgbPlanes,
  moon?: LampSettings['moon'],
): Throw {
  const camera = cameraOf(land);
  const cast = castPlan(camera, land.plan);
  const far = moon ? [moonLight(moon)] : [];
  return { camera, cast, lights: [...fixtureLights(camera, cast.walls, fixtures, small), ...far] };
}

export type ReliefView = View<(typeof RELIEF_PLANES)[number]>;
export type LightView = View<'spill' | 'air' | 'shine'>;

/** Lengths of the planes of light; where nothing shines there is no plane for it. */
export const lightPlanes = (pixels: number, plan: GroundPlan) => ({
  ...{ spill: pixels, air: pixels },
  shine: shines(plan) ? pixels : 0,
});

/** A plane that may not be there. */
export const ifAny = (plane: Float32Array) => (plane.length > 0 ? plane : undefined);

/** Adds lights to a band of light. */
export function throwLight(
  out: LightView,
  land: ReliefView,
  { camera, cast, lights }: Throw,
  views: ShadeViews,
  band: Band,
  kernels?: Kernels,
): void {
  const shades = occludersIn(cast, views);
  if (kernels) {
    kernels.addLights(out, land, camera, land.region, band.rows, lights, shades);
    return;
  }
  const { spill, air, shine } = band.of(out);
  addLights({ spill, air, shine: ifAny(shine) }, band.of(land), camera, band.region, lights, shades);
}

/** All that lights send out, lumens. */
const fluxOf = (lights: readonly PointLight[]) => lights.reduce((sum, light) => sum + luminousFlux(light), 0);

/** All that the lamps send out, lumens. */
interface DirectFacts {
  flux: number;
}

/** Describes the light of lamps on some land, before what surfaces give on. */
const directOn = (name: string, region: (at: Spot) => Region, land: (at: Spot) => Want<ReliefView>) =>
  stage({
    name,
    part: 'the light of the fixtures',
    region,
    settings: lampSettings,
    inputs: (at) => ({ relief: land(at), shades: shadesAt(at), small: seenPlate(smallOf(at)) }),
    prepare: ({ settings, inputs }) => ({
      ...throwOf(settings, settings.fixtures, inputs.small, settings.moon),
      plan: settings.plan,
    }),
    facts: ({ lights }): DirectFacts => ({ flux: fluxOf(lights) }),
    planes: (pixels, { plan }) => lightPlanes(pixels, plan),
    pace: 'heavy',
    run(out, inputs, { prepared, kernels }, band) {
      const { spill, air, shine } = band.of(out);
      for (const plane of [spill, air, shine]) plane.fill(0);
      throwLight(out, inputs.relief, prepared, inputs.shades, band, kernels);
    },
  });

/** The light of lamps on the small copy, and beyond the picture's edges. */
export const direct = directOn('direct', (at) => smallOf(at).region, relief);
export const directBeyond = directOn('direct beyond', () => BEYOND, beyond);

/** One float: all that lamps send out, lumens. */
export const flux = stage({
  name: 'flux',
  part: 'the light of the fixtures',
  region: (at) => smallOf(at).region,
  settings: lampSettings,
  inputs: (at) => ({ small: seenPlate(smallOf(at)) }),
  prepare: ({ settings, inputs }) =>
    fluxOf(throwOf(settings, settings.fixtures, inputs.small, settings.moon).lights),
  planes: () => ({ lumens: 1 }),
  pace: 'quick',
  whole: true,
  run(out, _, { prepared: lumens }) {
    out.lumens[0] = lumens;
  },
});
