import type { Command } from './command';
import { MOST_CUES, type Cue, type Scene } from './schema';

/**
 * Makes a scene all that another one is, around its own plate: for a photo of the same place, when the other's places are
 * already where this plate shows them. Its title and frame stay.
 */
export const bringEverything = (source: Scene): Command => ({
  label: `Everything of ${source.title}`,
  apply(scene) {
    const { title, plate, frame } = scene;
    Object.assign(scene, source, { title, plate, frame });
  },
});

/** Most circuits that one scene holds. */
const MOST_CIRCUITS = 100;

/** Circuits of another scene, each with its levels: those of the same names take them, the others are added. Ids by the other's ids. */
function takeCircuits(scene: Scene, source: Scene, fresh: ReadonlyMap<string, string>): Map<string, string> {
  const ids = new Map<string, string>();
  for (const circuit of source.circuits) {
    const own = scene.circuits.find(({ name }) => name === circuit.name);
    const id = own?.id ?? fresh.get(circuit.id)!;
    if (own) Object.assign(own, circuit, { id });
    else if (scene.circuits.length < MOST_CIRCUITS) scene.circuits.push({ ...circuit, id });
    else continue;
    ids.set(circuit.id, id);
  }
  return ids;
}

/** Cues whose names the scene has not yet, with its own circuits. */
function takeCues(
  scene: Scene,
  cues: readonly Cue[],
  fresh: ReadonlyMap<string, string>,
  ids: ReadonlyMap<string, string>,
): void {
  for (const cue of cues) {
    if (scene.cues.length >= MOST_CUES || scene.cues.some(({ name }) => name === cue.name)) continue;
    const circuits = cue.circuits.flatMap(({ id, ...levels }) => {
      const own = ids.get(id);
      return own === undefined ? [] : [{ id: own, ...levels }];
    });
    scene.cues.push({ ...cue, id: fresh.get(cue.id)!, circuits });
  }
}

/**
 * Takes over another scene's night, sky, moon, lens, desk, circuits and cues: whatever of its lighting goes by no place of its photo.
 * What refers to a file, a matte or a place stays as it is here.
 */
export function takeLighting(source: Scene, newId: () => string): Command {
  const fresh = new Map([...source.circuits, ...source.cues].map(({ id }) => [id, newId()]));
  return {
    label: `Lighting of ${source.title}`,
    apply(scene) {
      const ids = takeCircuits(scene, source, fresh);
      takeCues(scene, source.cues, fresh, ids);
      const { lut, surround } = scene.night;
      const { picture } = scene.sky;
      const { points, within } = scene.lens;
      const { within: _within, ...lens } = source.lens;
      scene.desk = source.desk;
      scene.moon = source.moon;
      scene.night = { ...source.night, lut, surround };
      scene.sky = { ...source.sky, picture };
      scene.lens = { ...lens, points, ...(within !== undefined && { within }) };
    },
  };
}
