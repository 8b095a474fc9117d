import { clampTo, RANGES } from '@/core/fields/ranges';
import type { Command } from '@/core/scene/command';
import { setNight } from '@/core/scene/commands';
import type { Scene } from '@/core/scene/schema';

/** Exposes a night by so many stops less, to a step of the exposure that is enough. */
export function stoppedDown({ night }: Scene, stops: number): Command {
  const { step, decimals } = RANGES.exposure;
  const exposure = step * Math.floor((night.exposure - stops) / step + 1e-6);
  return setNight('Stop down', { exposure: clampTo(Number(exposure.toFixed(decimals)), RANGES.exposure) });
}
