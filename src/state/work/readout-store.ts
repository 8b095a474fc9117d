import { createStore, type StoreApi } from 'zustand/vanilla';
import type { ToneRange } from '@/core/grade/grade';
import type { Glint } from '@/core/lens/glint';
import type { PlatePoint } from '@/core/geometry/camera';
import type { ToneHistogram } from '@/core/picture/tone-histogram';
import type { HungLamp } from '@/core/layout/hang-lamp';
import type { ClickedLamp } from '@/engine/stages/hung';
import type { CoveragePicture } from '@/core/matte/coverage-picture';
import type { LandPicture } from '@/engine/readouts/land';
import type { PlacesPicture } from '@/engine/readouts/places';
import type { TouchGroundPicture } from '@/engine/readouts/touch-ground';
import type { Scene, Touch } from '@/core/scene/schema';

/** What is read off the picture as it stands. */
export interface Readout {
  day?: ToneHistogram;
  night?: ToneHistogram;
  /** The tones that a scene's night occupies before it is refitted; there while a picture is on the screen. */
  toneRange?: (scene: Scene) => Promise<ToneRange>;
  /** By how many stops what burns is too bright for the night's exposure. */
  tooBright?: (scene: Scene) => Promise<number>;
  /** What a matte covers, for its thumbnail. */
  coverage?: (scene: Scene, matte: string) => Promise<CoveragePicture>;
  /** Where a lamp hangs that was clicked. */
  hung?: (scene: Scene, lamp: ClickedLamp) => Promise<HungLamp | undefined>;
  /** The lie of the land on the small copy. */
  land?: (scene: Scene) => Promise<LandPicture>;
  /** What each place of the plate is taken for, on the small copy. */
  places?: (scene: Scene) => Promise<PlacesPicture>;
  /** The tones of the day on which a circuit's spill lands, as shares. */
  beneath?: (scene: Scene, circuit: string) => Promise<Float32Array>;
  /** The tones of the day inside an outline, as shares. */
  inside?: (scene: Scene, outline: readonly PlatePoint[]) => Promise<Float32Array>;
  /** The sources that get spikes. */
  glints?: (scene: Scene) => Promise<Glint[]>;
  /** What strokes of a touch give in the part of the picture that is shown. */
  touchGround?: (scene: Scene, touch: Touch) => Promise<TouchGroundPicture>;
  /** The light that falls on a place of the scene, lux. */
  lux?: (scene: Scene, at: PlatePoint) => Promise<number>;
}

export type ReadoutStore = StoreApi<Readout>;

export const createReadoutStore = (): ReadoutStore => createStore<Readout>(() => ({}));
