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

/** A path with another piece at its end, and where its pieces begin then; a piece that would be too long is cut. */
const withPiece = (path: readonly PlatePoint[], starts: readonly number[], piece: readonly PlatePoint[]) => ({
  path: [...path, ...piece].slice(0, MOST_POINTS),
  starts: [...starts, path.length],
});

/** Adds to a glow key a loop of which all glows. */
export function addMissed(key: FixtureOf<'glow'>, loop: readonly PlatePoint[]): Command {
  const { path, starts } = withPiece(key.path, key.missed, loop);
  return setFixture(`${key.name}: what it missed`, key.id, { path, missed: starts });
}

/** Adds a wire to a bulb. */
export function addWire(bulb: Fixture, way: readonly PlatePoint[]): Command {
  const { path, starts } = withPiece(bulb.path, 'breaks' in bulb ? bulb.breaks : [], way);
  return setFixture(`${bulb.name}: another wire`, bulb.id, { path, breaks: starts });
}
