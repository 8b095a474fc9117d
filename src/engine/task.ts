import type { VisibleSource } from '@/core/fixture/shapes';
import type { Camera } from '@/core/plan/camera';
import type { RELIEF_PLANES } from '@/core/plan/relief';
import type { Surfaces, StandingRelief } from '@/core/plan/surfaces';
import type { Grip } from '@/core/scene/schema';
import type { Region } from '@/core/plane/region';
import type { Occluders, SeenCoverage, StandingCoverage } from '@/core/spill/occlusion';
import type { PointLight } from '@/core/spill/point-light';
import type { AmbientLight } from '@/core/night/ambient-light';
import type { Surround } from '@/core/night/surroundings';
import type { Grade } from '@/core/grade/grade';
import type { CubeLut } from '@/core/grade/cube-lut';
import type { FoundPass, Pass } from '@/core/matte/pass';
import type { EdgeWork } from '@/core/matte/soften';
import type { CoverageView } from '@/core/matte/show-coverage';
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

/** Floats an entry of a look-up table in the arena: one load a corner for the kernels. */
export const LUT_STRIDE = 4;

/** A look-up table in the arena: `data` is where its entries begin, LUT_STRIDE floats each. */
export type LutRefs = Omit<CubeLut, 'data' | 'title'> & { data: PlaneRef };

/** Local lines on a small copy. */
export interface LineRefs {
  slope: PlaneRef;
  offset: PlaneRef;
}

/** Lines of the passes that are found on the small copy, by pass. */
export type FoundRefs = Record<string, LineRefs>;

/** Tilts of normals. */
export interface TiltRefs {
  right: PlaneRef;
  up: PlaneRef;
}

/** Tilts with the size of their planes, which show the whole plate. */
export type TiltPicture = TiltRefs & { width: number; height: number };

/** Surfaces of the ground plan; coverages are of the region. */
export type SurfaceRefs = Omit<Surfaces, 'standees' | 'ends' | 'wet' | 'folds'> & {
  wet?: PlaneRef;
  folds?: TiltPicture;
  standees: (Omit<StandingRelief, 'coverage' | 'round'> & {
    coverage: PlaneRef;
    round?: TiltPicture;
  })[];
  ends: Record<string, PlaneRef>;
};

/** A coverage on the small copy, prefiltered. */
export type SeenCoverageRefs = Omit<SeenCoverage, 'levels'> & { levels: PlaneRef };

/** What casts shadows. */
export interface OccluderRefs extends Pick<Occluders, 'walls' | 'decks'> {
  standees: (SeenCoverageRefs & Pick<StandingCoverage, 'ahead'>)[];
  ends: Record<string, SeenCoverageRefs>;
}

/** Local lines of a colour guide on a copy of the plate. */
export type ColorLineRefs = PlateRefs & { offset: PlaneRef };

/** A plane of the whole plate at a size of its own. */
export interface PictureRef {
  width: number;
  height: number;
  data: PlaneRef;
}

/** A grade with where its tables lie. */
export interface GradeRefs {
  grade: Grade;
  tables: PlaneRef;
  lut?: LutRefs;
}

export interface LayerRefs {
  spill: PlaneRef;
  air: PlaneRef;
  /** Where nothing shines, there is none. */
  shine?: PlaneRef;
  source: PlaneRef;
  sourceRows: Rows;
}

/** A layer that mattes hold back: where something stands before its lamps, and where alone its spill lands. */
export interface HeldLayer {
  layer: LayerRefs;
  behind?: PlaneRef;
  only?: { coverage: PlaneRef; outside: boolean };
}

/** What a mix begins with. */
export interface BaseRefs {
  plate: PlateRefs;
  night: PlateRefs;
  distance: PlaneRef;
  land: PlaneRef;
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
  | { type: 'shading'; plate: PlateRefs; width: number; height: number; out: LineRefs }
  | {
      type: 'levelling';
      plate: PlateRefs;
      survey: SurveyRefs;
      shading: LineRefs;
      surveySize: { width: number; height: number };
      region: Region;
      rows: Rows;
      out: PlaneRef;
    }
  | {
      type: 'even';
      plate: PlateRefs;
      /** What `levelling` found. */
      shift: PlaneRef;
      amount: number;
      region: Region;
      rows: Rows;
      out: PlateRefs;
    }
  | {
      type: 'find';
      plate: PlateRefs;
      width: number;
      height: number;
      pass: FoundPass;
      /** Needed to find the sun's shadow. */
      survey?: SurveyRefs;
      out: LineRefs;
    }
  | {
      type: 'shadowGains';
      plate: PlateRefs;
      survey: SurveyRefs;
      coverage: PlaneRef;
      width: number;
      height: number;
      out: PlateRefs;
    }
  | {
      type: 'lift';
      plate: PlateRefs;
      coverage: PlaneRef;
      gains: PlateRefs;
      gainsSize: { width: number; height: number };
      amount: number;
      region: Region;
      rows: Rows;
      out: PlateRefs;
    }
  | { type: 'round'; coverage: PlaneRef; width: number; height: number; out: TiltRefs }
  | { type: 'crease'; plate: PlateRefs; width: number; height: number; out: TiltRefs }
  | {
      type: 'grip';
      spill: PlaneRef;
      plate: PlateRefs;
      grip: Grip;
      region: Region;
      rows: Rows;
      out: PlaneRef;
    }
  | {
      type: 'matte';
      passes: Pass[];
      plate: PlateRefs;
      found: FoundRefs;
      foundSize: { width: number; height: number };
      /** What the edge brush found, by pass. */
      brushed: Record<string, PictureRef>;
      /** Coverages of other mattes on the same region, by matte. */
      mattes: Record<string, PlaneRef>;
      region: Region;
      rows: Rows;
      out: PlaneRef;
    }
  | {
      type: 'refine';
      plate: PlateRefs;
      coverage: PlaneRef;
      region: Region;
      window: number;
      rows: Rows;
      out: ColorLineRefs;
    }
  | {
      type: 'follow';
      lines: ColorLineRefs;
      linesSize: { width: number; height: number };
      plate: PlateRefs;
      region: Region;
      rows: Rows;
      out: PlaneRef;
    }
  | {
      type: 'soften';
      /** Covers `from`: the region with a margin. */
      coverage: PlaneRef;
      from: Region;
      work: EdgeWork;
      invert: boolean;
      region: Region;
      rows: Rows;
      out: PlaneRef;
    }
  | {
      type: 'enlarge';
      coverage: PlaneRef;
      size: { width: number; height: number };
      region: Region;
      rows: Rows;
      out: PlaneRef;
    }
  | {
      type: 'place';
      coverage: PlaneRef;
      outside: boolean;
      stops: number;
      region: Region;
      rows: Rows;
      /** Factors of ambient light, multiplied in place. */
      out: PlaneRef;
    }
  | {
      type: 'show';
      coverage: PlaneRef;
      view: CoverageView;
      region: Region;
      rows: Rows;
      /** RGBA codes, changed in place. */
      out: PlaneRef;
    }
  | { type: 'surround'; surround?: Surround; region: Region; rows: Rows; out: PlaneRef }
  | {
      type: 'range';
      plate: PlateRefs;
      width: number;
      height: number;
      light: AmbientLight;
      open?: PlaneRef;
      grade: GradeRefs;
      /** Two floats: low and high. */
      out: PlaneRef;
    }
  | {
      type: 'night';
      plate: PlateRefs;
      light: AmbientLight;
      open?: PlaneRef;
      grade?: GradeRefs;
      region: Region;
      rows: Rows;
      out: PlateRefs;
    }
  | {
      type: 'relief';
      plate: PlateRefs;
      survey: SurveyRefs;
      surveySize: { width: number; height: number };
      camera: Camera;
      surfaces: SurfaceRefs;
      region: Region;
      rows: Rows;
      out: ReliefRefs;
    }
  | {
      type: 'layer';
      /** What casts shadows. */
      occluders: OccluderRefs;
      relief: ReliefRefs;
      camera: Camera;
      region: Region;
      rows: Rows;
      /** Planes to start from, for a layer of which only some fixtures are new. */
      base?: LayerRefs;
      /** Lights to add to the base. */
      lights: PointLight[];
      /** Every fixture of the layer that is seen. */
      sources: VisibleSource[];
      /** What lit surfaces add to the spill, of the whole plate. */
      bounce?: PictureRef;
      /** The plate, in which dark things over a lamp's glass are looked for. */
      plate: PlateRefs;
      out: LayerRefs;
    }
  | {
      type: 'bounce';
      /** All of the whole plate at one small size. */
      relief: ReliefRefs;
      plate: PlateRefs;
      spill: PlaneRef;
      size: { width: number; height: number };
      middle: number;
      camera: Camera;
      /** Blocks of pixels that become lights. */
      blocks: { columns: number; rows: number };
      /** What is lit: every so many pixels of the small size, each way. */
      every: number;
      region: Region;
      out: PlaneRef;
    }
  | { type: 'prefilter'; coverage: PlaneRef; width: number; height: number; out: PlaneRef }
  | { type: 'hold'; parts: HeldLayer[]; region: Region; rows: Rows; out: LayerRefs }
  | {
      type: 'mix';
      base: BaseRefs;
      layers: LayerRefs[];
      weights: Weights;
      region: Region;
      rows: Rows;
      out: PlaneRef;
    };

export type TaskOf<T extends Task['type']> = Extract<Task, { type: T }>;
