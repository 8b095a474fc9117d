import { newFixture } from '@/state/actions/fixture-actions';
import { KIND_NAMES } from '@/core/fixture/kinds';
import type { Fixture, Matte, Scene } from '@/core/scene/schema';
import type { Pass } from '@/core/matte/pass';
import type { OwnServer } from '../../e2e/support/server';
import { half } from '../spy-renderer';
import { ask, copyScene, dimTo, openScene, post, save, sendOut, watchWaits } from './client';
import type { Figures } from './figures';

/** As much as a scene may hold, or a share of it: 500 fixtures of all kinds, and 50 mattes of 20,000 strokes. */
function giantScene(scene: Scene, share: number): Scene {
  const [circuit] = scene.circuits;
  const fixtures = Array.from({ length: 500 * share }, (_, i): Fixture => {
    const kind = KIND_NAMES[i % KIND_NAMES.length];
    const at = { u: 0.05 + 0.9 * ((i % 25) / 25), v: 0.2 + 0.5 * (i / 500) };
    const path = [0, 1, 2].map((k) => ({ u: at.u + 0.004 * (k & 1), v: at.v + 0.004 * (k >> 1) }));
    return { ...newFixture(scene, kind, at, path, circuit), id: `f${i}`, name: `Fixture ${i}`, lumens: 40 };
  });
  const stroke = {
    ...{ path: [0.1, 0.2, 0.5, 0.15, 0.22, 0.7], size: 0.01, soft: 0.5, flow: 0.5, strength: 0.5 },
    ...({ erase: false, pressure: 'none' } as const),
  };
  const mattes = Array.from({ length: 50 * share }, (_, m): Matte => {
    const painted: Pass = {
      id: 'p',
      join: 'add',
      kind: 'paint',
      strokes: Array.from({ length: 400 }, () => stroke),
    };
    const before: Pass[] = ['a', 'b'].map((id) => ({ id, join: 'add', kind: 'matte', matte: `m${m - 1}` }));
    return { ...half, id: `m${m}`, name: `Matte ${m}`, passes: [painted, ...(m === 0 ? [] : before)] };
  });
  return { ...scene, fixtures, mattes, places: [{ matte: `m${50 * share - 1}`, outside: false, stops: -1 }] };
}

/** Copies, saves, opens, shows and sends out a scene that holds as much as one may, or a share of it. */
export async function giantTest(server: OwnServer, share: number, figures: Figures): Promise<void> {
  await server.start();
  const { url } = server;
  const stopWatching = watchWaits(url);
  const id = await copyScene(
    url,
    'ferry-steps',
    giantScene((await openScene(url, 'ferry-steps')).scene, share),
  );
  const { scene } = await openScene(url, id);
  figures.note(
    'large scene: fixtures, mattes, MB of its document',
    `${scene.fixtures.length}, ${scene.mattes.length}, ${(JSON.stringify(scene).length / 1e6).toFixed(1)}`,
  );
  const saved = await save(url, id, 0, [dimTo(-1)]);
  figures.none('its save refused', saved.status === 200 ? 0 : 1);
  figures.atMost('its save took', saved.milliseconds, 1000, 'ms');
  const named = await post(`${url}/api/scenes/${id}/moments`, { name: 'All of it', scene });
  figures.none('its moment refused', named.status === 201 ? 0 : 1);
  const thumbnail = await ask(`${url}/api/scenes/${id}/thumbnail?of=night`);
  figures.none('its thumbnail refused', thumbnail.status === 200 ? 0 : 1);
  figures.note('its thumbnail took, ms', Math.round(thumbnail.milliseconds));
  const from = performance.now();
  const out = await sendOut(url, id, 'jpeg');
  figures.none(`its output came to "${out}", not "done"`, out === 'done' ? 0 : 1);
  figures.note('its output took, ms', Math.round(performance.now() - from));
  figures.atMost('longest wait of another request meanwhile', await stopWatching(), 2000, 'ms');
  await server.kill();
}
