import type { CoverageView } from '@/core/matte/show-coverage';
import type { Region } from '@/core/plane/region';
import type { Turn } from './turn-queue';
import type { Fixture, GroundPlan, Scene } from '@/core/scene/schema';

/** What a frame shall show. */
export interface FrameRequest {
  scene: Scene;
  /** The part of the picture to make, and at which scale. */
  region: Region;
  /**
   * A fixture that is being dragged, as it was when it was taken up: the light of its neighbours is kept apart, so that it alone is
   * computed anew, and what surfaces give on of its light follows only when the drag ends.
   */
  moving?: Fixture;
  /**
   * While the horizon or a wall is dragged: the plan of the survey that is there already. The light follows the drag at once;
   * what is ground and what stands is found anew when it ends.
   */
  surveyAt?: GroundPlan;
  /** When the frame has its turn; soon, unless said otherwise. */
  turn?: Turn;
  /** A matte to be looked at, over the picture. */
  show?: { matte: string; view: CoverageView };
}
