import { rideAlong } from '../placed/ride-along';
import type { Command } from './command';
import { dropEmptyCircuits, freeTouches } from './fixture-commands';
import { keepRiding, seenCards } from './keep-riding';
import type { Fixture, Placed } from './schema';

/** Places a picture. */
export const addPlaced = (placed: Placed): Command => ({
  label: `Place ${placed.name}`,
  apply: (scene) => {
    scene.placed.push(placed);
  },
});

/** Sets values of a placed picture; lamps that are part of it go along. */
export const setPlaced = (label: string, id: string, values: Partial<Omit<Placed, 'id'>>): Command => ({
  label,
  apply: (scene) => {
    const placed = scene.placed.find((one) => one.id === id);
    if (!placed) return;
    keepRiding(scene, () => Object.assign(placed, values));
  },
});

/** Takes a placed picture away, and the lamps that are part of it. */
export const removePlaced = (id: string): Command => ({
  label: 'Remove a placed picture',
  apply: (scene) => {
    scene.placed = scene.placed.filter((one) => one.id !== id);
    scene.fixtures = scene.fixtures.filter(({ on }) => on !== id);
    freeTouches(scene);
    dropEmptyCircuits(scene);
  },
});

/** Places a copy of a placed picture with its lamps; both share their file. */
export const copyPlaced = (
  id: string,
  copy: Pick<Placed, 'id' | 'name' | 'foot'>,
  lamps: ReadonlyMap<string, Pick<Fixture, 'id' | 'name'>>,
): Command => ({
  label: `Place ${copy.name}`,
  apply: (scene) => {
    const placed = scene.placed.find((one) => one.id === id);
    if (!placed) return;
    const made = { ...placed, ...copy };
    const [before, after] = seenCards(scene, [placed, made]);
    scene.placed.push(made);
    for (const fixture of scene.fixtures.filter(({ on }) => on === id)) {
      const named = lamps.get(fixture.id);
      if (named)
        scene.fixtures.push({
          ...fixture,
          ...rideAlong(before, after, fixture),
          ...named,
          on: copy.id,
        });
    }
  },
});
