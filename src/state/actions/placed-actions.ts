import { project, type PlatePoint } from '@/core/geometry/camera';
import { horizonAt } from '@/core/geometry/ground';
import { cameraOf } from '@/core/picture/camera-of';
import { cardOf, cardPoint, onCard } from '@/core/placed/placed-card';
import { groundOf } from '@/core/placed/placed-land';
import { FIRST_PLACED } from '@/core/placed/placed-schema';
import type { TakenPicture } from '@/core/placed/taken-picture';
import { wallAt } from '@/core/plan/wall-at';
import type { Fixture, Placed, Scene } from '@/core/scene/schema';
import { freeName, nameOfFile, stemOf } from './free-name';

/** Longest name that is taken from a file. */
const LONGEST = 60;

/** How tall what is placed first is: what stands on the ground like a person, what hangs on a wall like a lantern. Metres. */
const FIRST_TALL = { standing: 1.8, hanging: 0.6 } as const;

/** How far under the horizon a foot first lies at least, fraction of the height. */
const UNDER_HORIZON = 0.05;

/** A picture placed where it was dropped: on the wall that is seen there, or else on the ground. */
export function newPlaced(scene: Scene, picture: TakenPicture, fileName: string, at: PlatePoint): Placed {
  const { asset, width, height, alpha, body } = picture;
  const camera = cameraOf(scene);
  const hangs = wallAt(camera, groundOf(camera, scene.plan).walls, at) !== undefined;
  const lowest = horizonAt(scene.plan.horizon, at.u) + UNDER_HORIZON;
  const stem = nameOfFile(fileName, LONGEST);
  return {
    ...FIRST_PLACED,
    ...{ id: crypto.randomUUID(), name: freshName(stem || 'Picture', scene.placed) },
    ...{ asset, width, height, body, hangs },
    ...(alpha !== undefined && { alpha }),
    cut: undefined,
    tall: hangs ? FIRST_TALL.hanging : FIRST_TALL.standing,
    foot: hangs ? at : { u: at.u, v: Math.min(1, Math.max(at.v, lowest)) },
  };
}

/** A name as it is, or with a number where it is taken. */
const freshName = (stem: string, items: { name: string }[]): string =>
  items.some(({ name }) => name === stem) ? freeName(stem, items) : stem;

/** How far beside its original a copy is placed, fraction of the plate's width. */
const BESIDE = 0.06;

/** What a copy of a placed picture is called and where it stands, and what its lamps are called. */
export function copyOfPlaced(scene: Scene, placed: Placed) {
  const lamps = new Map<string, Pick<Fixture, 'id' | 'name'>>();
  const named: { name: string }[] = [...scene.fixtures];
  for (const fixture of scene.fixtures.filter(({ on }) => on === placed.id)) {
    const name = freeName(stemOf(fixture), named);
    named.push({ name });
    lamps.set(fixture.id, { id: crypto.randomUUID(), name });
  }
  const { u, v } = placed.foot;
  const copy = {
    id: crypto.randomUUID(),
    name: freeName(stemOf(placed), scene.placed),
    foot: { u: u + BESIDE < 0.98 ? u + BESIDE : u - BESIDE, v },
  };
  return { copy, lamps };
}

/** The placed picture on which a lamp is lit at a place of the plate, and the lamp's foot then; the nearest one. */
export function placedUnder(scene: Scene, at: PlatePoint): { id: string; foot: PlatePoint } | undefined {
  const camera = cameraOf(scene);
  const ground = groundOf(camera, scene.plan);
  const hit = scene.placed
    .flatMap((placed) => {
      const card = cardOf(camera, ground, placed);
      const on = onCard(camera, card, at);
      if (!on || Math.abs(on.across - 0.5) > 0.5 || Math.abs(on.up - 0.5) > 0.5) return [];
      return [{ id: placed.id, world: cardPoint(card, on.across, on.up) }];
    })
    .sort((a, b) => a.world[1] - b.world[1])
    .at(0);
  const foot = hit && project(camera, [hit.world[0], hit.world[1], 0]);
  return hit && foot && { id: hit.id, foot };
}

/** How far ahead a placed picture stands, metres. */
export function aheadOf(scene: Scene, placed: Placed): number {
  const camera = cameraOf(scene);
  return cardOf(camera, groundOf(camera, scene.plan), placed).foot[1];
}
