import type { Step } from '@/state/view-store';
import { fixtures } from './fixtures';
import { frame } from './frame';
import { mattes } from './mattes';
import { night } from './night';
import { output } from './output';
import { plan } from './plan';
import type { StepInfo } from './step';

/** Every step of the worksheet, by name. To add one: a folder beside these, a line here, and its place in the order of the work. */
export const STEP_INFO: Record<Step, StepInfo> = { frame, night, mattes, plan, fixtures, output };
