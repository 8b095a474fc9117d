import type { LogEntry } from './history';
import type { Scene } from './schema';

/** A scene as the scenes page lists it. */
export interface SceneSummary {
  id: string;
  title: string;
  revision: number;
  /** Milliseconds since 1970. */
  updatedAt: number;
  width: number;
  height: number;
  fixtures: number;
}

/** A scene as the editor opens it, with the newest part of its log. */
export interface OpenScene {
  id: string;
  scene: Scene;
  revision: number;
  log: LogEntry[];
  /** 35 mm equivalent focal length that the photo names. */
  photoLens?: number;
}
