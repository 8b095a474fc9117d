import { fixtures } from './fixtures';
import { frame } from './frame';
import { lens } from './lens';
import { mattes } from './mattes';
import { night } from './night';
import { output } from './output';
import { placed } from './placed';
import { plan } from './plan';
import { sky } from './sky';
import type { StepInfo } from './step';
import { touch } from './touch';

/** Every step of the worksheet, in the order of the work. To add one: a folder beside these, and its name here. */
export const STEPS = { frame, night, mattes, plan, placed, sky, fixtures, touch, lens, output };

export type StepName = keyof typeof STEPS;

export const STEP_NAMES = Object.keys(STEPS) as StepName[];

/** A step as those see it who treat all alike. */
export const stepOf = (name: StepName) => STEPS[name] as StepInfo;

type ViewOf<Step> = Step extends StepInfo<infer View> ? View : never;
type Merged<All> = (All extends unknown ? (one: All) => void : never) extends (all: infer Every) => void
  ? Every
  : never;

/** What all steps together hold of the view's state. */
export type StepViews = Merged<{ [Name in StepName]: ViewOf<(typeof STEPS)[Name]> }[StepName]>;
