import { project, type Camera, type PlatePoint } from '../geometry/camera';
import { groundPoint } from '../geometry/ground';
import { RANGES, clampTo } from '../fields/ranges';
import type { FixtureBase } from '../fixture/fixture-base';
import { cardPoint, onCard, type Card } from './placed-card';

/** What of a fixture says where it is and how large. */
export type Riding = Pick<FixtureBase, 'at' | 'foot' | 'aim' | 'path' | 'size'>;

/** Metres that a plate's width spans at a card, but for a factor that all cards share. */
const spanAt = ({ foot, height }: Card) => height / Math.max(0.1, foot[1]);

/** Where a fixture is that is part of a placed picture once its card has changed. Places that are no more in view stay where they were. */
export function rideAlong(camera: Camera, before: Card, after: Card, fixture: Riding): Riding {
  const turned = before.flip !== after.flip;
  const worldOf = (at: PlatePoint) => {
    const on = onCard(camera, before, at);
    return on && cardPoint(after, turned ? 1 - on.across : on.across, on.up);
  };
  const moved = (at: PlatePoint): PlatePoint => {
    const world = worldOf(at);
    return (world && project(camera, world)) ?? at;
  };
  const world = worldOf(fixture.at);
  const foot = (world && project(camera, [world[0], world[1], 0])) ?? fixture.foot;
  const was = groundPoint(camera, fixture.foot);
  const aimed = groundPoint(camera, fixture.aim);
  const stands = groundPoint(camera, foot);
  const aim = project(camera, [aimed[0] - was[0] + stands[0], aimed[1] - was[1] + stands[1], 0]);
  return {
    ...{ at: moved(fixture.at), foot, aim: aim ?? fixture.aim, path: fixture.path.map(moved) },
    size: clampTo((fixture.size * spanAt(after)) / spanAt(before), RANGES.size),
  };
}
