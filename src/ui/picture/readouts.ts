import { tonesBeneath } from '@/engine/readouts/beneath';
import { coverageOf } from '@/engine/readouts/coverage';
import { glintsOf } from '@/engine/readouts/glints';
import { hungIn } from '@/engine/readouts/hung';
import { tonesInside } from '@/engine/readouts/inside';
import { landOf } from '@/engine/readouts/land';
import { luxAt } from '@/engine/readouts/lux';
import { placesIn } from '@/engine/readouts/places';
import { toneRangeOf } from '@/engine/readouts/tone-range';
import { stopsTooBrightIn } from '@/engine/readouts/too-bright';
import { touchGroundOf } from '@/engine/readouts/touch-ground';
import type { Region } from '@/core/plane/region';
import type { Renderer } from '@/engine/renderer';
import { newestOf } from '@/state/session/newest-of';
import type { Readout } from '@/state/work/readout-store';

/** What can be read off a scene while its picture is up. */
type Readers = Required<Omit<Readout, 'day' | 'night'>>;

/**
 * What the interface reads off a scene by its renderer, until `lasting` is aborted. Of readouts that follow the pointer, a
 * newer question gives up an older one.
 *
 * @param regionShown the part of the plate that is shown
 */
export function readersOf(renderer: Renderer, lasting: AbortSignal, regionShown: () => Region): Readers {
  const until = (signal: AbortSignal) => AbortSignal.any([signal, lasting]);
  return {
    toneRange: (scene) => renderer.read(toneRangeOf(scene), lasting),
    hung: (scene, lamp) => renderer.read(hungIn(scene, lamp), lasting),
    land: (scene) => renderer.read(landOf(scene), lasting),
    beneath: (scene, circuit) => renderer.read(tonesBeneath(scene, circuit), lasting),
    inside: (scene, outline) => renderer.read(tonesInside(scene, outline), lasting),
    coverage: (scene, matte) => renderer.read(coverageOf(scene, matte), lasting),
    lux: newestOf((signal, scene, at) => renderer.read(luxAt(scene, at), until(signal))),
    tooBright: newestOf((signal, scene) => renderer.read(stopsTooBrightIn(scene), until(signal), 'later')),
    places: newestOf((signal, scene) => renderer.read(placesIn(scene), until(signal))),
    glints: newestOf((signal, scene) => renderer.read(glintsOf(scene), until(signal))),
    touchGround: newestOf((signal, scene, touch) =>
      renderer.read(touchGroundOf({ scene, region: regionShown() }, touch), until(signal)),
    ),
  };
}
