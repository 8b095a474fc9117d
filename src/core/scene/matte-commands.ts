import type { EdgeStroke, PaintStroke, Pass } from '../matte/pass';
import type { Matte, Place } from './schema';
import type { Command } from './command';

/** Adds a matte. */
export const addMatte = (matte: Matte): Command => ({
  label: `Matte: ${matte.name}`,
  apply: (scene) => {
    scene.mattes.push(matte);
  },
});

/** Sets values of one matte. */
export const setMatte = (label: string, id: string, values: Partial<Omit<Matte, 'id'>>): Command => ({
  label,
  apply: (scene) => {
    const matte = scene.mattes.find((m) => m.id === id);
    if (matte) Object.assign(matte, values);
  },
});

/** Sets values of one pass of a matte. */
export const setPass = (label: string, matteId: string, id: string, values: Partial<Pass>): Command => ({
  label,
  apply: (scene) => {
    const pass = scene.mattes.find((m) => m.id === matteId)?.passes.find((p) => p.id === id);
    if (pass) Object.assign(pass, values);
  },
});

/** Adds a stroke to a pass that is drawn; a stroke of the edge brush comes with the picture of all that was found. */
export const addStroke = (
  label: string,
  matteId: string,
  id: string,
  stroke: PaintStroke | EdgeStroke,
  asset?: string,
): Command => ({
  label,
  apply: (scene) => {
    const pass = scene.mattes.find((m) => m.id === matteId)?.passes.find((p) => p.id === id);
    if (pass?.kind === 'paint') pass.strokes.push(stroke as PaintStroke);
    if (pass?.kind !== 'edge') return;
    pass.strokes.push(stroke as EdgeStroke);
    pass.asset = asset;
  },
});

/** Takes a matte away, and what it was used for with it. */
export const removeMatte = (id: string): Command => ({
  label: 'Remove a matte',
  apply: (scene) => {
    scene.mattes = scene.mattes.filter((m) => m.id !== id);
    for (const matte of scene.mattes)
      matte.passes = matte.passes.filter((pass) => pass.kind !== 'matte' || pass.matte !== id);
    scene.places = scene.places.filter((place) => place.matte !== id);
    scene.plan.standees = scene.plan.standees.filter((standee) => standee.matte !== id);
    scene.plan.glosses = scene.plan.glosses.filter((gloss) => gloss.matte !== id);
    for (const wall of scene.plan.walls) if (wall.until === id) delete wall.until;
    if (scene.plan.sunShadow?.matte === id) delete scene.plan.sunShadow;
    if (scene.lens.within === id) delete scene.lens.within;
    if (scene.plan.ground.wet === id) delete scene.plan.ground.wet;
    for (const placed of scene.placed) if (placed.behind === id) delete placed.behind;
    for (const touch of scene.touches) if (touch.only?.matte === id) delete touch.only;
    for (const fixture of scene.fixtures) {
      if (fixture.behind === id) delete fixture.behind;
      if (fixture.only?.matte === id) delete fixture.only;
    }
  },
});

/** Sets the places of which the night's own light is lifted or lowered. */
export const setPlaces = (label: string, places: Place[]): Command => ({
  label,
  apply: (scene) => {
    scene.places = places;
  },
});
