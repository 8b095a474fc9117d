import { readFile } from 'node:fs/promises';
import { ThingNetwork, type NetworkFiles } from '@/detect/network';

const FOLDER = 'node_modules/@vladmandic/human/models';

/** The network that sees things, as its package brings it. */
export async function readNetwork(): Promise<ThingNetwork> {
  const model = JSON.parse(await readFile(`${FOLDER}/centernet.json`, 'utf8')) as NetworkFiles['model'];
  const { buffer, byteOffset, byteLength } = await readFile(`${FOLDER}/centernet.bin`);
  const weights = buffer.slice(byteOffset, byteOffset + byteLength) as ArrayBuffer;
  return ThingNetwork.load({ model, weights });
}
