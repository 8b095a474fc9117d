import { placesOf } from '@/core/relief/places-of';
import { lineCoverage } from '@/core/survey/line-coverage';
import type { Scene } from '@/core/scene/schema';
import { plate } from '../stages/plate';
import { relief } from '../stages/relief';
import { survey, surveyIn } from '../stages/survey';
import type { Readout } from './readout';
import { smallSpot } from './small-spot';

/** What the pixels of the small copy are taken for, one more than their places in SAID. */
export interface PlacesPicture {
  width: number;
  height: number;
  places: Uint8Array;
}

/** What each place of the plate is taken for: ground, upright, far, sky or water. */
export const placesIn =
  (scene: Scene): Readout<PlacesPicture> =>
  async (reader) => {
    const at = smallSpot(reader, scene);
    const { water } = surveyIn(await reader.see(survey(at)));
    const covered = water && lineCoverage(await reader.see(plate(at)), water);
    const { width, height, land, normalZ, distance } = await reader.see(relief(at));
    return { width, height, places: placesOf({ land, level: normalZ, distance, water: covered }) };
  };
