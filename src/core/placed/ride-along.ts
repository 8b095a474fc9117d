import { project, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { RANGES, clampTo } from '../fields/ranges';
import type { FixtureBase } from '../fixture/fixture-base';
import { cardPoint, onCard, type Card } from './placed-card';

/** What of a fixture says where it is and how large. */
export type Riding = Pick<FixtureBase, 'at' | 'foot' | 'aim' | 'path' | 'size'>;

/** A card as a camera sees it. */
export interface SeenCard {
  camera: Camera;
  card: Card;
}

/** How large a card is seen, fraction of the plate's width. */
const spanAt = ({ camera: { focal }, card: { foot, height } }: SeenCard) =>
  (focal * height) / Math.max(0.1, foot[1]);

/**
 * Where a fixture is that is part of a placed picture once its card, or the camera, has changed. Places that are no more in view stay
 * where they were.
 */
export function rideAlong(before: SeenCard, after: SeenCard, fixture: Riding): Riding {
  const turned = before.card.flip !== after.card.flip;
  const { camera } = after;
  const worldOf = (at: PlatePoint) => {
    const on = onCard(before.camera, before.card, at);
    return on && cardPoint(after.card, turned ? 1 - on.across : on.across, on.up);
  };
  const moved = (at: PlatePoint): PlatePoint => {
    const world = worldOf(at);
    return (world && project(camera, world)) ?? at;
  };
  const world = worldOf(fixture.at);
  const foot = (world && project(camera, [world[0], world[1], 0])) ?? fixture.foot;
  const was = groundPoint(before.camera, fixture.foot);
  const aimed = groundPoint(before.camera, fixture.aim);
  const stands = groundPoint(camera, foot);
  const aim = project(camera, [aimed[0] - was[0] + stands[0], aimed[1] - was[1] + stands[1], 0]);
  return {
    ...{ at: moved(fixture.at), foot, aim: aim ?? fixture.aim, path: fixture.path.map(moved) },
    size: clampTo((fixture.size * spanAt(after)) / spanAt(before), RANGES.size),
  };
}
