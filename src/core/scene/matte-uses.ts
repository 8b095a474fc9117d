import type { Scene } from './schema';
import { innerMattes } from '../matte/inner-mattes';

/** What uses a matte, in words. */
export function usesOf(scene: Scene, id: string): string[] {
  return [
    ...scene.places
      .filter(({ matte }) => matte === id)
      .map(({ outside }) => `the night’s light ${outside ? 'outside' : 'inside'}`),
    ...scene.fixtures.filter(({ behind }) => behind === id).map(({ name }) => `${name}, behind it`),
    ...scene.fixtures.filter(({ only }) => only?.matte === id).map(({ name }) => `${name}’s spill`),
    ...scene.placed.filter(({ behind }) => behind === id).map(({ name }) => `${name}, behind it`),
    ...scene.touches.filter(({ only }) => only?.matte === id).map(({ name }) => `where ${name} is laid on`),
    ...scene.plan.walls.filter(({ until }) => until === id).map(({ name }) => `the end of ${name}`),
    ...(scene.lens.within === id ? ['where the lens draws spikes'] : []),
    ...(scene.plan.ground.wet === id ? ['where the ground shines'] : []),
    ...(scene.plan.sunShadow?.matte === id ? ['the sun’s shadow'] : []),
    ...scene.plan.standees.filter(({ matte }) => matte === id).map(({ name }) => `the standee ${name}`),
    ...scene.plan.glosses.filter(({ matte }) => matte === id).map(({ name }) => `the gloss ${name}`),
    ...scene.mattes.filter((matte) => innerMattes(matte).includes(id)).map(({ name }) => `the matte ${name}`),
  ];
}
