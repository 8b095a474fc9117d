import { hourName } from '@/core/night/hour';
import type { StepInfo } from '../step';
import { nightView, type NightView } from './night-view';
import { NightStep } from './night-step';
import { NightSurface } from './night-surface';

const signed = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(1)}`;

export const night: StepInfo<NightView> = {
  title: 'Night',
  view: nightView,
  decided: ({ night }) =>
    `${hourName(night.hour)}, ${signed(night.exposure)} stops, ${Math.round(night.kelvin / 50) * 50} K`,
  Body: NightStep,
  Surface: NightSurface,
};
