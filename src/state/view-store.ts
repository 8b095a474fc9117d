import type { EdgeStroke, PaintStroke } from '@/core/matte/pass';
import type { CoverageView } from '@/core/matte/show-coverage';
import type { PlatePoint } from '@/core/plan/camera';
import type { Alike } from '@/core/fixture/twins';
import type { PlateLine } from '@/core/plan/vanishing-point';
import type { Fixture, GroundPlan } from '@/core/scene/schema';
import type { PlanGuess } from './plan-guess';
import { createStore, type StoreApi } from 'zustand/vanilla';

/** Steps of the worksheet, in the order of the work. */
export const STEPS = ['frame', 'night', 'mattes', 'plan', 'fixtures', 'output'] as const;
export type Step = (typeof STEPS)[number];

/** What a window shows; not part of the document. */
/** How the picture is looked at: fitted into the view, or at so many device pixels a plate pixel around a place. */
export interface Look {
  zoom: 'fit' | number;
  center: PlatePoint;
}

export const FITTED: Look = { zoom: 'fit', center: { u: 0.5, v: 0.5 } };

/** The night alone, the night wiped over the day, or the two beside each other. */
export const PROOFS = ['night', 'wipe', 'beside'] as const;
export type Proof = (typeof PROOFS)[number];

/** Parts of the Night step; one is open at a time. */
export const NIGHT_PARTS = ['light', 'tones', 'byTone', 'lut', 'surround', 'haze', 'moon'] as const;
export type NightPartName = (typeof NIGHT_PARTS)[number];

export interface ViewState {
  step: Step;
  nightPart?: NightPartName;
  /** The chosen matte, the pass of it that the picture sets, and how it is looked at. */
  matte?: string;
  pass?: string;
  matteView: CoverageView | 'off';
  /** How the next stroke is painted. */
  brush: Omit<PaintStroke, 'path'>;
  /** What the next stroke of the edge brush does. */
  edgeAct: EdgeStroke['act'];
  /** An outline's next points follow the plate's edges. */
  following: boolean;
  /** An edge is being looked for. */
  finding: boolean;
  /** The chosen surface of the ground plan, and what the next drag on the picture draws there. */
  surface?: string;
  drawing?: 'wall' | 'deck' | 'parallels' | 'scale';
  /** The first of two lines that are parallel in the world. */
  parallel?: PlateLine;
  /** An upright thing whose height is known: foot and top. */
  measured?: PlateLine;
  /** What was guessed of the ground plan and waits to be taken. */
  guess?: PlanGuess;
  /** The ground plan is shown as a pop-up. */
  popUp: boolean;
  /** The next drag on the picture, in the Frame step, is along something level. */
  levelling: boolean;
  /** Values are read off the picture under the pointer. */
  probing: boolean;
  /** What the next gesture on the picture lights. */
  kind: Fixture['kind'];
  /** What the next drag writes as a tube; nothing for a stroke. */
  lettering: string;
  /** The next drag, with tube, runs one around a frame. */
  framing: boolean;
  /** What looks like a fixture, and waits to be lit. */
  twins?: { of: string; found: Alike[] };
  /** How many copies the next drag lights in a row from the chosen fixture. */
  rowing?: number;
  /** The chosen fixture, and others that are chosen with it. */
  chosen?: string;
  also: readonly string[];
  /** The circuit that a new fixture goes on. */
  circuit?: string;
  /** The fixture under a drag, as it was when it was taken up: its light is made apart. */
  moving?: Fixture;
  /** The horizon as it was when the drag of it began. */
  surveyAt?: GroundPlan['horizon'];
  look: Look;
  /** How day and night are compared. */
  proof: Proof;
  /** Where the wipe stands, 0 to 1 across the view: night to its left. */
  wipe: number;
  /** The day is shown instead of the night. */
  day: boolean;
  /** Only the first so many circuits are shown burning, and whether the next come on by themselves. */
  buildUp?: number;
  buildUpRuns: boolean;
  /** A cue that is looked at for as long as it is held. */
  cueHeld?: string;
  /** The next click on the picture picks a gel off it. */
  picking: boolean;
  set: (values: Partial<Omit<ViewState, 'set'>>) => void;
}

export type ViewStore = StoreApi<ViewState>;

export function createViewStore(): ViewStore {
  return createStore<ViewState>((set) => ({
    step: 'fixtures',
    look: FITTED,
    proof: 'night',
    wipe: 0.5,
    day: false,
    buildUpRuns: false,
    kind: 'globe',
    lettering: '',
    framing: false,
    also: [],
    picking: false,
    levelling: false,
    matteView: 'tint',
    brush: { size: 0.03, soft: 0.6, flow: 0.5, strength: 1, erase: false, pressure: 'flow' },
    edgeAct: 'loop',
    following: false,
    finding: false,
    probing: false,
    nightPart: 'light',
    popUp: false,
    // Whatever chooses one fixture lets go of the others.
    set: (values) => set('chosen' in values ? { also: [], ...values } : values),
  }));
}

/** The ids of all fixtures that are chosen. */
export const chosenIds = ({ chosen, also }: Pick<ViewState, 'chosen' | 'also'>): string[] =>
  chosen === undefined ? [] : [chosen, ...also];
