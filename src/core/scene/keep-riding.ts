import { createCamera } from '../geometry/camera';
import { cardOf } from '../placed/placed-card';
import { groundOf } from '../placed/placed-land';
import { rideAlong, type SeenCard } from '../placed/ride-along';
import type { Placed, Scene } from './schema';

/** How placed pictures are seen. */
export function seenCards({ plan, plate }: Scene, placed: readonly Placed[]): SeenCard[] {
  const camera = createCamera(plan, plate.width / plate.height);
  const ground = groundOf(camera, plan);
  return placed.map((one) => ({ camera, card: cardOf(camera, ground, one) }));
}

/** Changes something of a scene; lamps that are part of placed pictures go along where those are seen elsewhere then. */
export function keepRiding(scene: Scene, change: () => void): void {
  const ridden = scene.placed.filter(({ id }) => scene.fixtures.some(({ on }) => on === id));
  const before = ridden.length > 0 ? seenCards(scene, ridden) : [];
  change();
  if (ridden.length === 0) return;
  const after = seenCards(scene, ridden);
  ridden.forEach(({ id }, k) => {
    if (JSON.stringify(before[k]) === JSON.stringify(after[k])) return;
    for (const fixture of scene.fixtures)
      if (fixture.on === id) Object.assign(fixture, rideAlong(before[k], after[k], fixture));
  });
}
