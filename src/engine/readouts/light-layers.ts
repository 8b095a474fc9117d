import { nightGains, pictureWeights } from '@/core/picture/weights';
import { cameraOf } from '@/core/picture/camera-of';
import type { Camera } from '@/core/geometry/camera';
import type { RgbPlanes } from '@/core/plane/plane';
import type { Region } from '@/core/plane/region';
import type { FrameRequest } from '../frame-request';
import { evened } from '../stages/even';
import { matte } from '../stages/matte';
import { relief } from '../stages/relief';
import { hasSky } from '../stages/skyline';
import { survey } from '../stages/survey';
import { nightLight } from '../stages/touch';
import { circuitLight } from './circuit';
import type { Readout } from './readout';
import { hypot } from '@/core/plane/hypot';

/** A part of a picture, taken apart: linear light before haze and lens, and where things lie. All the caller's own. */
export interface LightLayers {
  /** What lamps light. */
  day: RgbPlanes;
  /** The night's own light with its sky, and that of the sky alone. */
  night: RgbPlanes;
  sky: RgbPlanes;
  /** The light of each circuit that burns or not, in their order, as its fader has it. */
  circuits: RgbPlanes[];
  /** Metres from the eye. */
  depth: Float32Array;
  /** Of surfaces, world axes: to the right, ahead, up. */
  normal: [x: Float32Array, y: Float32Array, z: Float32Array];
  /** Coverage of each matte. */
  mattes: Float32Array[];
}

const ALL_PARTS = { spill: true, air: true, source: true };

const owned = (plane: Float32Array) => new Float32Array(plane);

/** Each channel by a gain a pixel. */
function gained({ width, height, r, g, b }: RgbPlanes, gain: (i: number) => number): RgbPlanes {
  const [red, green, blue] = [r, g, b].map((plane) => plane.map((value, i) => value * gain(i)));
  return { width, height, r: red, g: green, b: blue };
}

/** How far off what is seen lies, by the lengths of rays that lead there. */
function metresFromEye(
  reach: Float32Array,
  { corner, across, down }: Camera,
  { left, top, width, fullWidth, fullHeight }: Region,
): Float32Array {
  return reach.map((length, i) => {
    const u = (left + (i % width) + 0.5) / fullWidth;
    const v = (top + Math.floor(i / width) + 0.5) / fullHeight;
    const along = (c: 0 | 1 | 2) => corner[c] + u * across[c] + v * down[c];
    return length * hypot(along(0), along(1), along(2));
  });
}

/** A picture's light taken apart. */
export const lightLayers =
  (request: FrameRequest): Readout<LightLayers> =>
  async (reader) => {
    const { spot, see } = reader;
    const { scene } = request;
    const at = spot(request);
    const { medianLuminance } = await see(survey(at));
    const { ambient, sky } = nightGains(pictureWeights(scene, [], medianLuminance[0]), hasSky(at));
    const circuits: RgbPlanes[] = [];
    for (const { id } of scene.circuits) circuits.push(await circuitLight(request, id, ALL_PARTS)(reader));
    const mattes: Float32Array[] = [];
    for (const { id } of scene.mattes) mattes.push(owned((await see(matte(at, id))).coverage));
    const day = gained(await see(evened(at)), () => 1);
    const lie = await see(relief(at));
    const land = owned(lie.land);
    const normal = [lie.normalX, lie.normalY, lie.normalZ].map(owned);
    const depth = metresFromEye(lie.reach, cameraOf(scene), request.region);
    const night = gained(await see(nightLight(at)), (i) => sky + (ambient - sky) * land[i]);
    return {
      ...{ day, night, circuits, depth, mattes },
      sky: gained(night, (i) => 1 - land[i]),
      normal: normal as LightLayers['normal'],
    };
  };
