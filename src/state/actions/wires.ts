import type { FixtureOf } from '@/core/fixture/fixture-schema';
import { MOST_POINTS } from '@/core/fixture/fixture-base';
import type { PlatePoint } from '@/core/geometry/camera';
import type { Command } from '@/core/scene/command';
import { setFixture } from '@/core/scene/fixture-commands';
import type { Fixture, Scene } from '@/core/scene/schema';

/** Whether a place is seen in a bulb's glass. */
export function isInGlass(
  { plate }: Pick<Scene, 'plate'>,
  { kind, at, size }: Fixture,
  place: PlatePoint,
): boolean {
  const away = Math.hypot(place.u - at.u, ((place.v - at.v) * plate.height) / plate.width);
  return kind === 'filament' && away <= size;
}

/** Adds to a glow key a loop of which all glows; one that would be too long for it is cut. */
export function addMissed(key: FixtureOf<'glow'>, loop: readonly PlatePoint[]): Command {
  const { id, name, path, missed } = key;
  return setFixture(`${name}: what it missed`, id, {
    path: [...path, ...loop].slice(0, MOST_POINTS),
    missed: [...missed, path.length],
  });
}

/** Adds a wire to a bulb; one that would be too long for it is cut. */
export function addWire(bulb: Fixture, way: readonly PlatePoint[]): Command {
  const { id, name, path } = bulb;
  const breaks = 'breaks' in bulb ? bulb.breaks : [];
  return setFixture(`${name}: another wire`, id, {
    path: [...path, ...way].slice(0, MOST_POINTS),
    breaks: [...breaks, path.length],
  });
}
