import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { buffer } from 'node:stream/consumers';
import type { Scene } from '@/core/scene/schema';
import { receiveBytes as receiveIntoStore } from '@/server/assets/asset-store';
import { beginScene } from '@/server/scenes/intake';
import { writeSceneFile } from '@/server/scenes/scene-file';
import { openWorkspace, type Workspace } from '@/server/assets/workspace';
import { pngChunk } from './icc';

/** A workspace in a folder of its own, and how to take it away. */
export async function temporaryWorkspace(): Promise<{ space: Workspace; remove: () => Promise<void> }> {
  const dataDir = await mkdtemp(join(tmpdir(), 'sundew-test-'));
  return { space: openWorkspace(dataDir), remove: () => rm(dataDir, { recursive: true, force: true }) };
}

/** Bytes as an upload would bring them. */
export function receiveBytes({ dataDir }: Workspace, bytes: Uint8Array) {
  return receiveIntoStore(dataDir, bytes);
}

/** A scene of a small picture, or of other bytes. Returns its id. */
export async function begunScene(space: Workspace, bytes?: Uint8Array, name = 'quay.jpg'): Promise<string> {
  return (await beginScene(space, await receiveBytes(space, bytes ?? (await pictureBytes())), name)).id;
}

/** A scene as the bytes of its file. */
export const sceneFileBytes = ({ dataDir }: Workspace, scene: Scene): Promise<Buffer> =>
  buffer(writeSceneFile(dataDir, scene));

/** A small picture with a bright upper half. */
export async function pictureBytes(width = 96, height = 64, format: 'jpeg' | 'png' | 'webp' = 'jpeg') {
  const rgb = new Uint8Array(3 * width * height);
  rgb.fill(200, 0, 3 * width * (height >> 1)).fill(90, 3 * width * (height >> 1));
  return sharp(rgb, { raw: { width, height, channels: 3 } })
    .toFormat(format)
    .toBuffer();
}

/** A PNG whose header claims a size and that holds next to nothing. */
export function claimingPng(width: number, height: number): Uint8Array {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([8, 2, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    pngChunk('IHDR', header),
    pngChunk('IDAT', Buffer.alloc(32)),
    pngChunk('IEND', Buffer.alloc(0)),
  ]);
}
