import { describe, expect, it } from 'vitest';
import { streetLamp, streetScene, testCircuit } from '../../../test/street';
import { exifOf, litWords, toldFacts, xmpOf, type PhotoFacts } from './photo-facts';

const photo: PhotoFacts = {
  make: 'Larkfield',
  model: 'Two <3> & "more"',
  artist: 'Åse Berg',
  taken: '2026-01-31T18:05:09',
  exposureTime: 1 / 60,
  fNumber: 2.8,
  iso: 200,
  focalLength: 35,
  place: { latitude: -12.5, longitude: 7.0084 },
};
const scene = {
  ...streetScene([
    streetLamp('1', 0.3, { circuit: 'quay' }),
    streetLamp('2', 0.6, { circuit: 'quay' }),
    streetLamp('3', 0.7, { circuit: 'barn' }),
  ]),
  circuits: [testCircuit('quay'), testCircuit('barn', { muted: true }), testCircuit('none')],
};

describe('toldFacts', () => {
  it('say what burns, and nothing where nothing does or nothing shall be said', () => {
    expect(litWords(scene)).toBe('Lit: quay (2).');
    expect(litWords({ ...scene, circuits: [] })).toBe('A night without lamps.');
    expect(toldFacts(scene, photo, 'none')).toBeUndefined();
    expect(toldFacts(scene, photo, 'all')).toMatchObject({ title: scene.title, place: photo.place });
  });

  it('leave the place out, in every word of it', () => {
    const told = toldFacts(scene, photo, 'placeless')!;
    expect(told.place).toBeUndefined();
    expect(exifOf(told).IFD3).toEqual({});
    expect(xmpOf(told)).not.toContain('GPS');
  });
});

describe('exifOf', () => {
  it('writes fractions, times and angles as the standard has them, and no letters that it lacks', () => {
    const { IFD0, IFD2, IFD3 } = exifOf(toldFacts(scene, photo, 'all')!);
    expect(IFD0).toMatchObject({ Make: 'Larkfield', Software: 'Sundew' });
    expect(IFD0).not.toHaveProperty('Artist');
    expect(IFD2).toMatchObject({
      DateTimeOriginal: '2026:01:31 18:05:09',
      ExposureTime: '1/60',
      FNumber: '280/100',
      FocalLength: '3500/100',
    });
    expect(IFD3).toMatchObject({ GPSLatitudeRef: 'S', GPSLatitude: '12/1 30/1 0/100', GPSLongitudeRef: 'E' });
    expect(IFD3.GPSLongitude).toBe('7/1 0/1 3024/100');
  });
});

describe('xmpOf', () => {
  it('holds any letters, and nothing that would break it', () => {
    const xml = xmpOf({ ...toldFacts(scene, photo, 'all')!, title: 'Nacht \u0000\u0007<über> & "so" 夜' });
    expect(xml).toContain('Nacht &lt;über&gt; &amp; &quot;so&quot; 夜');
    expect(xml).toContain('tiff:Model="Two &lt;3&gt; &amp; &quot;more&quot;"');
    expect(xml).toContain('<rdf:li>Åse Berg</rdf:li>');
    expect(xml).toContain('exif:GPSLatitude="12,30.00000S"');

    expect(xml).not.toMatch(/[\x00-\x08]/);
  });
});
