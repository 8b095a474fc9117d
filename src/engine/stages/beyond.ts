import { cameraOf } from '@/core/picture/camera-of';
import { wallPieces } from '@/core/plan/wall-pieces';
import { BEYOND, beyondPicture } from '@/core/relief/beyond-picture';
import { stage } from '../graph/stage';
import { landOf } from './land';
import { reliefPlanes } from './relief';

/** The lie of the land beyond the picture's edges. */
export const beyond = stage({
  name: 'beyond',
  part: 'the ground plan',
  region: () => BEYOND,
  settings: landOf,
  inputs: () => ({}),
  planes: reliefPlanes,
  pace: 'quick',
  whole: true,
  run(out, _, { prepared: settings }) {
    const camera = cameraOf(settings);
    beyondPicture(out, camera, wallPieces(camera, settings.plan.walls));
  },
});
