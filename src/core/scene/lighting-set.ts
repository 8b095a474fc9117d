import { parseScene, SceneFormatError } from './parse-scene';
import { SCENE_VERSION, type Fixture, type Scene } from './schema';

/** The lamps of a scene and all of its lighting, as a file carries them to another photo. */
export interface LightingFile {
  format: 'sundew-lighting';
  version: number;
  scene: Scene;
}

/** A fixture that nothing of its photo holds back or carries. */
function free({ behind: _behind, only: _only, on: _on, ...fixture }: Fixture): Fixture {
  return fixture;
}

/** A scene without what belongs to its photo alone: what is left are its lamps, circuits, cues, night, sky, lens and desk. */
function withoutPhoto(scene: Scene): Scene {
  const { wet: _wet, ...ground } = scene.plan.ground;
  const { within: _within, ...lens } = scene.lens;
  return {
    ...scene,
    plan: {
      ...scene.plan,
      ground,
      walls: [],
      standees: [],
      decks: [],
      glosses: [],
      strokes: [],
      sunShadow: undefined,
    },
    mattes: [],
    places: [],
    touches: [],
    placed: [],
    drifts: [],
    fixtures: scene.fixtures.map(free),
    night: { ...scene.night, lut: null },
    sky: { ...scene.sky, picture: null },
    lens: { ...lens, points: [] },
  };
}

export const lightingOf = (scene: Scene): LightingFile => ({
  format: 'sundew-lighting',
  version: SCENE_VERSION,
  scene: withoutPhoto(scene),
});

/** The scene of a lighting set, from a plain JSON value. Throws SceneFormatError with a reason a person understands. */
export function parseLighting(value: unknown): Scene {
  const head = value as Partial<LightingFile> | null | undefined;
  if (typeof head !== 'object' || head === null || head.format !== 'sundew-lighting')
    throw new SceneFormatError('This file is no Sundew lighting set.');
  return withoutPhoto(parseScene(head.scene));
}
