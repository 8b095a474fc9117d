import { describe, expect, it } from 'vitest';
import { RANGES } from '@/core/fields/ranges';
import { runCommand } from '@/core/scene/command';
import { setNight } from '@/core/scene/commands';
import { newScene } from '@/core/scene/new-scene';
import { stoppedDown } from './stop-down';

const at = (exposure: number) =>
  runCommand(
    newScene('Quay', { asset: 'a'.repeat(64), width: 1600, height: 1067 }),
    setNight('', { exposure }),
  ).scene;
const after = (exposure: number, stops: number) =>
  runCommand(at(exposure), stoppedDown(at(exposure), stops)).scene.night.exposure;

describe('stopping down', () => {
  it('takes the exposure down by whole steps that are enough', () => {
    expect(after(-4, 2.3)).toBe(-6.3);
    expect(after(-4, 2.31)).toBe(-6.4);
  });

  it('ends where exposures end', () => {
    expect(after(-9, 4)).toBe(RANGES.exposure.min);
  });
});
