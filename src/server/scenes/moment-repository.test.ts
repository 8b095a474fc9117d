import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { runCommand } from '@/core/scene/command';
import { setNight } from '@/core/scene/commands';
import { flip, type LogEntry } from '@/core/scene/history';
import { SCENE_VERSION, type Scene } from '@/core/scene/schema';
import { temporaryWorkspace, begunScene } from '../../../test/workspace';
import { forgetMoment, listMoments, momentScene, nameMoment, sceneAfter } from './moment-repository';
import { openScene, saveEntries } from './scene-repository';
import { openWorkspace, type Workspace } from '../assets/workspace';

let space: Workspace;
let remove: () => Promise<void>;
let id: string;
beforeAll(async () => {
  ({ space, remove } = await temporaryWorkspace());
  id = await begunScene(space);
});
afterAll(() => remove());

const expose = (scene: Scene, exposure: number): LogEntry => ({
  id: randomUUID(),
  kind: 'do',
  ...runCommand(scene, setNight('Exposure', { exposure })).change,
});

it('goes back to what a scene was after any entry of its log, undone or not', () => {
  const entries: LogEntry[] = [];
  let { scene } = openScene(space, id);
  for (const exposure of [-1, -2, -3]) {
    entries.push(expose(scene, exposure));
    scene = runCommand(scene, setNight('Exposure', { exposure })).scene;
  }
  const undo: LogEntry = { ...flip(entries[2]), id: randomUUID(), kind: 'undo' };
  saveEntries(space, id, { version: SCENE_VERSION, base: 0, entries: [...entries, undo] });
  const exposures = [...entries, undo].map((entry) => sceneAfter(space, id, entry.id).night.exposure);
  expect(exposures).toEqual([-1, -2, -3, -2]);
  expect(() => sceneAfter(space, id, randomUUID())).toThrow('not here');
});

it('keeps named moments whatever is undone, across a restart, until they are forgotten', () => {
  const { scene } = openScene(space, id);
  const lit = { ...scene, night: { ...scene.night, exposure: -4.5 } };
  const { id: moment } = nameMoment(space, id, 'before the rain', lit);
  const again = openWorkspace(space.dataDir);
  expect(listMoments(again, id)).toEqual([{ id: moment, name: 'before the rain' }]);
  expect(momentScene(again, id, moment)).toEqual(lit);
  expect(() => momentScene(again, 'another', moment)).toThrow('not here');
  expect(() => nameMoment(space, id, 'broken', { ...scene, night: null })).toThrow('damaged');
  forgetMoment(space, id, moment);
  expect(listMoments(space, id)).toEqual([]);
});
