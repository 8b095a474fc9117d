import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { OwnServer } from '../../e2e/support/server';
import { pictureBytes } from '../workspace';
import { ask, copyScene, dimTo, openScene, save, sendOut, upload } from './client';
import type { Figures } from './figures';
import type { Random } from './random';

/** A scene that is saved to without pause, and what of it was acknowledged. */
interface Writer {
  id: string;
  /** The revision that it begins on. */
  revision: number;
  acknowledged: string[];
  saving: boolean;
}

/** A writer on a copy of its own. */
async function beginWriter(url: string): Promise<Writer> {
  const id = await copyScene(url, 'ferry-steps');
  const { revision } = await openScene(url, id);
  return { id, revision, acknowledged: [], saving: true };
}

/** Saves one entry after the other until the server is gone. */
async function saveOn(url: string, writer: Writer): Promise<void> {
  let { revision } = writer;
  for (let n = 0; writer.saving; n++) {
    const entry = dimTo(-((n % 40) + 1) / 10);
    const { status, text } = await save(url, writer.id, revision, [entry]);
    if (status !== 200) return;
    writer.acknowledged.push(entry.id);
    ({ revision } = JSON.parse(text) as { revision: number });
  }
}

/** Takes photos in until the server is gone. Gives the scenes that were acknowledged. */
async function takeOn(url: string, photo: Uint8Array, isOn: () => boolean): Promise<string[]> {
  const begun: string[] = [];
  while (isOn()) {
    // A byte after the end makes it another file, with the same picture in it.
    const bytes = Buffer.concat([photo, Buffer.from(crypto.randomUUID())]);
    const { status, text } = await upload(`${url}/api/scenes?name=photo.jpg`, bytes);
    if (status !== 201) return begun;
    begun.push((JSON.parse(text) as { id: string }).id);
  }
  return begun;
}

/** What of a writer's acknowledged entries is not in the log, or stands in the wrong place of it. */
async function lostOf(url: string, { id, revision: begun, acknowledged }: Writer): Promise<number> {
  const { log, revision } = await openScene(url, id);
  const recent = acknowledged.slice(-log.length);
  const ids = log.map((entry) => entry.id);
  const from = ids.indexOf(recent[0] ?? '');
  const misplaced = recent.filter((entry, i) => ids[from + i] !== entry).length;
  return misplaced + (revision < begun + acknowledged.length ? 1 : 0);
}

/** Kills a server in the middle of saving, taking in and sending out, again and again, and counts what is lost. */
export async function killTest(
  server: OwnServer,
  kills: number,
  random: Random,
  figures: Figures,
): Promise<void> {
  const photo = await pictureBytes(900, 700);
  let [acknowledged, lost, scenes, broken] = [0, 0, 0, 0];
  await server.start();
  for (let kill = 0; kill < kills; kill++) {
    const writers = await Promise.all([1, 2, 3].map(() => beginWriter(server.url)));
    let taking = true;
    const work = Promise.all([
      takeOn(server.url, photo, () => taking),
      sendOut(server.url, writers[0].id, 'png').catch(() => 'gone'),
      ...writers.map((writer) => saveOn(server.url, writer)),
    ]);
    await new Promise((resolve) => setTimeout(resolve, 300 + random.below(1500)));
    await server.kill();
    taking = false;
    for (const writer of writers) writer.saving = false;
    const [begun] = await work;
    await server.start();
    for (const writer of writers) {
      acknowledged += writer.acknowledged.length;
      lost += await lostOf(server.url, writer);
    }
    for (const id of begun) {
      scenes++;
      if ((await ask(`${server.url}/api/scenes/${id}/thumbnail?of=day`)).status !== 200) broken++;
    }
  }
  const leftovers = await readdir(join(server.dataDir, 'incoming')).catch(() => []);
  figures.note('kills in the middle of saving, taking in and sending out', kills);
  figures.note('entries acknowledged', acknowledged);
  figures.none('of them lost or out of place', lost);
  figures.note('photos acknowledged', scenes);
  figures.none('of them without a picture', broken);
  figures.note('unfinished uploads left behind, to be collected', leftovers.length);
  await server.kill();
}
