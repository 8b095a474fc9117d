import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { streetScene } from '../../../test/street';
import { applyLut } from '../grade/apply-lut';
import { parseCube } from '../grade/cube-lut';
import { startingNight } from '../night/starting-night';
import type { Scene } from '../scene/schema';
import { cubeText, nightTable, notInTable, TABLE_SIDES, tableOff } from './night-table';

const plain = { ...streetScene([]).night, ...startingNight(0.6), haze: 0 };
const scene: Scene = { ...streetScene([]), title: 'Kai “bei” Nacht', night: plain };
const colours = (count: number) =>
  Uint8Array.from({ length: 3 * count }, (_, i) => (i * 7919 + (i % 3) * 53) % 256);

describe('a night as a table', () => {
  it('is darker than the day everywhere, and black stays black', () => {
    const table = nightTable(scene, 17, { gain: 1 });
    expect([...applyLut(table, [0, 0, 0])].every((value) => value < 0.02)).toBe(true);
    const channel = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(channel, (grey) => {
        const [r, g, b] = applyLut(table, [grey, grey, grey]);
        expect(Math.max(r, g, b)).toBeLessThanOrEqual(grey + 0.02);
      }),
    );
  });

  it('holds what it stands for better the more entries it has', () => {
    const day = colours(2000);
    const exact = nightTable(scene, 65, { gain: 1.3 });
    const night = Array.from({ length: 2000 }, (_, k) =>
      applyLut(exact, [day[3 * k] / 255, day[3 * k + 1] / 255, day[3 * k + 2] / 255]).map(
        (value) => 255 * value,
      ),
    ).flat();
    const [coarse, fine] = [17, 33].map((side) =>
      tableOff(nightTable(scene, side as 17 | 33, { gain: 1.3 }), day, night),
    );
    expect(fine.mean).toBeLessThan(coarse.mean);
    expect(coarse.mean).toBeLessThan(1);
    expect(tableOff(exact, day, night)).toEqual({
      mean: expect.closeTo(0, 4) as number,
      most: expect.closeTo(0, 3) as number,
    });
  });

  it('goes through its text and back', () => {
    for (const side of TABLE_SIDES.slice(0, 2)) {
      const table = nightTable(scene, side, { gain: 0.8 });
      const back = parseCube(cubeText(table, ['Zwölf Codes daneben']));
      expect(back).toMatchObject({ dimensions: 3, size: side, title: 'Kai ?bei? Nacht' });
      table.data.forEach((value, i) => expect(Math.abs(back.data[i] - value)).toBeLessThan(1e-6));
    }
  });

  it('says what goes by place', () => {
    const bare = { ...scene, places: [], sky: { ...scene.sky, from: 'plate' as const } };
    const even = { ...bare, night: { ...plain, evenOut: 0, surround: { ...plain.surround, stops: 0 } } };
    expect(notInTable(even)).toEqual([]);
    expect(
      notInTable({ ...even, night: { ...even.night, haze: 0.3 }, sky: { ...scene.sky, from: 'hour' } }),
    ).toEqual(['the sky', 'haze']);
  });
});
