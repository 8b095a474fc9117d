import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { streetLamp, streetScene } from '../../../test/street';
import { runCommand } from './command';
import { setDesk } from './commands';
import { setCircuit } from './fixture-commands';
import { setDeskBetween } from './cue-commands';
import { betweenCues, betweenLevels, cueOf } from './cues';

const lit = streetScene([streetLamp('a', 0.3)]);
const evening = cueOf(lit, 'evening', 'Evening');
const late = {
  ...evening,
  ...{ id: 'late', name: 'Late', ambient: -2, moon: 0 },
  circuits: [{ ...evening.circuits[0], level: -10 }],
};

describe('cues', () => {
  it('bring the desk back as it was, also the muted and soloed', () => {
    const changed = [
      setDesk('Ambient', { ambient: -3, moon: 1 }),
      setCircuit('Level', 'street', { level: 2, muted: true, solo: true }),
    ].reduce((scene, command) => runCommand(scene, command).scene, lit);
    expect(runCommand(changed, setDeskBetween('Cue', evening, evening, 1)).scene).toEqual(lit);
  });

  it('fade by light: half the way to off is a stop down', () => {
    const half = betweenCues(evening, late, 0.5);
    expect(half.circuits[0].level).toBeCloseTo(-1, 6);
    expect(half.moon).toBeCloseTo(-1, 6);
    expect(half.ambient).toBeCloseTo(Math.log2(0.5 + 0.125), 6);
    expect(betweenCues(evening, late, 0)).toMatchObject({
      ambient: evening.ambient,
      circuits: evening.circuits,
    });
    expect(betweenCues(evening, late, 1)).toEqual(late);
  });

  it('leave a circuit alone that came later, and keep one that only one of them knows', () => {
    const other = { ...late, circuits: [{ ...late.circuits[0], id: 'gone', level: 1 }] };
    const met = betweenCues(evening, other, 0.5).circuits.map(({ id }) => id);
    expect(met.sort()).toEqual(['gone', 'street']);
    const bare = { ...evening, circuits: [] };
    expect(runCommand(lit, setDeskBetween('Cue', bare, bare, 1)).scene.circuits).toEqual(lit.circuits);
  });

  it('never leave the range of a fader', () => {
    const stops = fc.double({ min: -10, max: 4, noNaN: true });
    fc.assert(
      fc.property(stops, stops, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, share) => {
        const level = betweenLevels(a, b, share);
        expect(level).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-9);
        expect(level).toBeLessThanOrEqual(Math.max(a, b) + 1e-9);
      }),
    );
  });
});
