import { innerMattes, isCircular } from '../matte/inner-mattes';
import type { Scene } from './schema';

/** The mattes that something in a scene uses, by id. */
function usedMattes({ places, mattes, plan, fixtures, touches, placed, lens }: Scene): string[] {
  return [
    ...places.map(({ matte }) => matte),
    ...mattes.flatMap(innerMattes),
    ...plan.standees.map(({ matte }) => matte),
    ...plan.glosses.map(({ matte }) => matte),
    ...plan.walls.flatMap(({ until }) => until ?? []),
    ...(lens.within ? [lens.within] : []),
    ...(plan.ground.wet ? [plan.ground.wet] : []),
    ...(plan.sunShadow ? [plan.sunShadow.matte] : []),
    ...placed.flatMap(({ behind }) => behind ?? []),
    ...touches.flatMap(({ only }) => only?.matte ?? []),
    ...fixtures.flatMap(({ behind, only }) => [behind ?? [], only?.matte ?? []].flat()),
  ];
}

/** What is wrong with how parts of a scene refer to each other; undefined where all is well. Each part must be sound. */
export function referenceFault(scene: Scene): string | undefined {
  const mattes = new Set(scene.mattes.map(({ id }) => id));
  const circuits = new Set(scene.circuits.map(({ id }) => id));
  if (!usedMattes(scene).every((id) => mattes.has(id))) return 'something uses a matte that does not exist';
  if (isCircular(scene.mattes)) return 'a matte refers to itself through another';
  if (!scene.fixtures.every(({ circuit }) => circuits.has(circuit)))
    return 'a fixture is on a circuit that does not exist';
  if (!scene.touches.every(({ circuit }) => circuit === undefined || circuits.has(circuit)))
    return 'a touch is on a circuit that does not exist';
  const there = new Set(scene.placed.map(({ id }) => id));
  if (!scene.fixtures.every(({ on }) => on === undefined || there.has(on)))
    return 'a fixture is part of a placed picture that does not exist';
  const fixtures = new Set(scene.fixtures.map(({ id }) => id));
  if (!scene.touches.every(({ toward }) => toward === undefined || fixtures.has(toward)))
    return 'a touch faces a fixture that does not exist';
  return undefined;
}
