import type { StepInfo } from '../step';
import { planView, type PlanView } from './plan-view';
import { PlanOver } from './plan-over';
import { PlanStep } from './plan-step';
import { PlanSurface } from './plan-surface';

export const plan: StepInfo<PlanView> = {
  title: 'Ground plan',
  view: planView,
  decided: ({ plan }) => `${plan.lens} mm, eye ${plan.eyeHeight.toFixed(2)} m`,
  Body: PlanStep,
  Surface: PlanSurface,
  Over: PlanOver,
  followsPointer: true,
  showsDay: ({ drawing }) => drawing === 'say',
  keepsMarks: ({ guess, drawing }) => guess !== undefined || drawing === 'say',
};
