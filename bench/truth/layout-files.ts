import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { PlatePoint } from '@/core/geometry/camera';
import { halfFloats, keptIds } from './truth-files';

/** Where made-up places with their exact lie of the land are: a folder a place. */
export const LAYOUT_ROOT = process.env.SUNDEW_LAYOUTS ?? '../shared/layouts';

/** What every pixel of a layout shows. */
export const SHOWS = {
  sky: 0,
  ground: 1,
  standing: 2,
  pane: 3,
  building: 4,
  lamp: 6,
  glass: 7,
  water: 8,
} as const;

export type Pair = [number, number];

/** A foot line that is known, in fractions of the picture. */
interface KnownWall {
  name: string;
  from: Pair;
  to: Pair;
  height_m: number;
  visible: number;
}

interface LayoutFile {
  focal_mm_35: number;
  eye_height_m: number;
  yaw_deg: number;
  camera: Record<'position' | 'right' | 'up' | 'forward', number[]>;
  horizon: { left: number; right: number };
  walls: KnownWall[];
  things: { kind: string; foot: Pair; box: number[]; visible_area: number }[];
  alike: { lamps: KnownLamps[]; windows: KnownWindows[] };
}

export interface KnownLamps {
  name: string;
  kind: string;
  members: { centre: Pair; radius: number; foot: Pair; visible: number; box: number[] }[];
}

export interface KnownWindows {
  name: string;
  members: { outline: Pair[]; visible_area: number }[];
}

/** A layout with its truth: planes of 480 x 320. */
export interface Layout {
  name: string;
  photo: string;
  known: LayoutFile;
  ids: Uint8Array;
  /** Normals in the world of its camera: x right, y ahead, z up. */
  normals: Float32Array;
}

export const placeOf = ([u, v]: Pair): PlatePoint => ({ u, v });

/** The names of the layouts that are there. */
export const layoutNames = async (): Promise<string[]> =>
  (await readdir(LAYOUT_ROOT, { withFileTypes: true }))
    .filter((entry) => entry.isDirectory())
    .map(({ name }) => name)
    .sort();

export async function readLayout(name: string): Promise<Layout> {
  const file = (of: string) => join(LAYOUT_ROOT, name, of);
  const known = JSON.parse(await readFile(file('layout.json'), 'utf8')) as LayoutFile;
  const ids = await keptIds(file('id.u8.gz'));
  const world = halfFloats(gunzipSync(await readFile(file('normal_world.f16.gz'))));
  const yaw = (known.yaw_deg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(yaw), Math.sin(yaw)];
  const normals = new Float32Array(world.length);
  for (let i = 0; i < world.length; i += 3) {
    normals[i] = cos * world[i] - sin * world[i + 1];
    normals[i + 1] = sin * world[i] + cos * world[i + 1];
    normals[i + 2] = world[i + 2];
  }
  return { name, photo: file('day.jpg'), known, ids, normals };
}
