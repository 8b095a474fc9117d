import type { AnyStage } from '../graph/stage-spec';
import { beyond } from './beyond';
import { bounce } from './bounce';
import { cutout, ends } from './cutout';
import { deviates } from './deviates';
import { direct, directBeyond, flux } from './direct';
import { cover, drifted, driftLight } from './drift';
import { even, levelling, peopledDay, shading } from './even';
import { brushed, found } from './found';
import { grip } from './grip';
import { hung } from './hung';
import { burning, glare, glints, grain, lampPoints } from './lens';
import { masked } from './masked';
import { lamps } from './lamps';
import { edge, enlarged, passes, refined, softened } from './matte';
import { mirrored, mirrorImage, mirrorLight, mirrorMap, mirrorPyramid } from './mirror';
import { lut, night, open, range, tables } from './night';
import { deepFilm, film, shown } from './picture';
import { laid, land, peopled } from './placed';
import { plate } from './plate';
import { crease, relief, round } from './relief';
import { soft } from './shades';
import { behind, sky } from './sky';
import { clouds, dome, points, skyPicture } from './sky-parts';
import { skyline, tones } from './skyline';
import { sum } from './sum';
import { gains, lift, litWalls, wallShade } from './sun';
import { survey } from './survey';
import { tooBright } from './too-bright';
import { holdback, lifted, stroked, touched, touches } from './touch';
import { touchGround } from './touch-ground';
import { smallLight, veil } from './veil';

/** Every stage that workers do. A stage that is added is named here, and by the stages that want it. */
export const STAGES: readonly AnyStage[] = [
  ...[plate, survey, shading, levelling, even, gains, lift, wallShade, litWalls],
  ...[found, brushed, passes, edge, refined, softened, enlarged],
  ...[ends, cutout, laid, peopled, peopledDay, land],
  ...[open, tables, lut, range, night],
  ...[round, crease, relief, soft, hung],
  ...[tones, skyline, dome, clouds, points, skyPicture, sky, behind],
  ...[holdback, stroked, touched, touches, lifted, touchGround],
  ...[beyond, direct, directBeyond, flux, bounce, lamps, masked, grip],
  ...[mirrorMap, mirrorLight, mirrorPyramid, mirrorImage, mirrored],
  ...[sum, tooBright, cover, driftLight, drifted],
  ...[lampPoints, burning, glints, smallLight, veil, glare, deviates, grain, film, deepFilm, shown],
].map(({ spec }) => spec);
