import type { Scene } from '@/core/scene/schema';
import type { ReceivedFile } from '../assets/asset-store';

/** A scene file taken apart: the document, and received files of what it holds. */
export interface SceneParts {
  scene: Scene;
  plate: ReceivedFile;
  /** The look-up table that the night uses. */
  lut?: ReceivedFile;
  /** The picture of a sky. */
  sky?: ReceivedFile;
  /** Pictures that are placed in it. */
  placed: ReceivedFile[];
  /** What edge brushes found, as PNGs. */
  coverages: ReceivedFile[];
}

/** Paths of the files of a scene that was taken apart. */
export const pathsOf = ({ plate, lut, sky, placed, coverages }: Omit<SceneParts, 'scene'>): string[] =>
  [plate, ...placed, ...coverages, ...(lut ? [lut] : []), ...(sky ? [sky] : [])].map(({ path }) => path);
