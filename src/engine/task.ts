import type { GlobeSource } from '@/core/fixture/add-globe-source';
import type { Camera } from '@/core/plan/camera';
import type { RELIEF_PLANES } from '@/core/plan/relief';
import type { Region } from '@/core/plane/region';
import type { PointLight } from '@/core/spill/point-light';
import type { Weights } from '@/core/picture/weights';

/** Byte offset of a plane in the arena. */
export type PlaneRef = number;

/** Rows of a region, counted from its top. */
export interface Rows {
  from: number;
  to: number;
}

export interface PlateRefs {
  r: PlaneRef;
  g: PlaneRef;
  b: PlaneRef;
}

export type ReliefRefs = Record<(typeof RELIEF_PLANES)[number], PlaneRef>;

/** Planes of a survey, of one small size, and one float for the median of the land. */
export interface SurveyRefs {
  groundSlope: PlaneRef;
  groundOffset: PlaneRef;
  skySlope: PlaneRef;
  skyOffset: PlaneRef;
  feet: PlaneRef;
  middle: PlaneRef;
}

export interface LayerRefs {
  spill: PlaneRef;
  air: PlaneRef;
  source: PlaneRef;
  sourceRows: Rows;
}

/** Work for one worker: plain data, planes as offsets into the shared arena. */
export type Task =
  | { type: 'plate'; codes: PlaneRef; region: Region; rows: Rows; out: PlateRefs }
  | {
      type: 'survey';
      plate: PlateRefs;
      width: number;
      height: number;
      horizon: { left: number; right: number };
      out: SurveyRefs;
    }
  | {
      type: 'relief';
      plate: PlateRefs;
      survey: SurveyRefs;
      surveySize: { width: number; height: number };
      camera: Camera;
      region: Region;
      rows: Rows;
      out: ReliefRefs;
    }
  | {
      type: 'layer';
      relief: ReliefRefs;
      camera: Camera;
      region: Region;
      rows: Rows;
      /** Planes to start from, for a layer of which only some fixtures are new. */
      base?: LayerRefs;
      /** Lights to add to the base. */
      lights: PointLight[];
      /** Every visible lamp of the layer. */
      sources: GlobeSource[];
      out: LayerRefs;
    }
  | {
      type: 'mix';
      plate: PlateRefs;
      layers: LayerRefs[];
      weights: Weights;
      region: Region;
      rows: Rows;
      out: PlaneRef;
    };
