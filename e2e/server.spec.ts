import { randomUUID } from 'node:crypto';
import { request as http } from 'node:http';
import { FIRST_SWITCHING } from '@/core/output/switching';
import { expect, test } from '@playwright/test';
import { PLAIN_FINISH, PLAIN_SURFACE } from '@/core/scene/new-scene';
import { SCENE_VERSION } from '@/core/scene/schema';
import { surveySize } from '@/engine/sizes';
import { LIMITS } from '@/server/http/limits';
import sharp from 'sharp';
import { DRAWN, drawnStreet } from '../test/drawn-street';
import { copyOf, sceneOf } from './support/editor';

interface Fault {
  error: { code: string; message: string; revision?: number };
}

const entry = (value: unknown, path = ['desk', 'ambient']) => ({
  id: randomUUID(),
  kind: 'do',
  label: 'Ambient',
  patches: [{ op: 'replace', path, value }],
  inverse: [{ op: 'replace', path, value: 0 }],
});

const ENTRY = { ...entry(-1), id: '9f0c6f5e-6d1c-4a55-9a43-0d8a1f1c7b11' };

const PASS = { id: 'p', join: 'add', kind: 'edge', strokes: [] };
const MATTE = { id: 'm', name: 'Found', refine: 0, grow: 0, feather: 0, invert: false };

/** Every route that takes a body, with bodies that are wrong in one way each. */
const BODIES: [fault: string, path: string, body: unknown][] = [
  ['no fields', 'revisions', {}],
  ['a base below 0', 'revisions', { base: -1, entries: [ENTRY] }],
  ['a base that is a word', 'revisions', { base: '0', entries: [ENTRY] }],
  ['no entries', 'revisions', { base: 0, entries: [] }],
  ['an unknown kind', 'revisions', { base: 0, entries: [{ ...ENTRY, kind: 'other' }] }],
  ['an id that is none', 'revisions', { base: 0, entries: [{ ...ENTRY, id: 'not-an-id' }] }],
  [
    'an operation that is none',
    'revisions',
    { base: 0, entries: [{ ...ENTRY, patches: [{ op: 'move', path: ['a'] }] }] },
  ],
  ['patches that are a word', 'revisions', { base: 0, entries: [{ ...ENTRY, patches: 'all' }] }],
  ['a field too many', 'revisions', { base: 0, entries: [ENTRY], extra: true }],
  ['no version', 'revisions', { version: undefined, base: 0, entries: [ENTRY] }],
  ['an entry that comes twice', 'revisions', { base: 0, entries: [ENTRY, ENTRY] }],
  ['fixtures that are a word', 'revisions', { base: 0, entries: [entry('x', ['fixtures'])] }],
  ['mattes that are a number', 'revisions', { base: 0, entries: [entry(5, ['mattes'])] }],
  ['a plan that is nothing', 'revisions', { base: 0, entries: [entry(null, ['plan'])] }],
  ['a length', 'revisions', { base: 0, entries: [entry(4294967295, ['fixtures', 'length'])] }],
  ['no scene', 'copy', {}],
  [
    'a scene of an old version and odd parts',
    'copy',
    { scene: { format: 'sundew-scene', version: 1, plan: 3 } },
  ],
  [
    'a moment of fixtures that are a word',
    'moments',
    { name: 'x', scene: { format: 'sundew-scene', version: 3, fixtures: 'x' } },
  ],
  ['what is no scene', 'copy', { scene: { format: 'other' } }],
  ['no format', 'outputs', {}],
  ['an unknown format', 'outputs', { format: 'gif', quality: 90 }],
  ['a quality of 0', 'outputs', { format: 'jpeg', quality: 0 }],
  ['a quality that is a word', 'outputs', { format: 'jpeg', quality: '90' }],
  ['colours that are none', 'outputs', { format: 'jpeg', quality: 90, colours: 'cmyk' }],
  ['a switching-on without numbers', 'switchings', { form: 'webp' }],
  ['a switching-on that is far too fast', 'switchings', { ...FIRST_SWITCHING, fps: 1000 }],
];

for (const [fault, path, body] of BODIES) {
  test(`${path} refuses ${fault}`, async ({ request }) => {
    const data = path === 'revisions' ? { version: SCENE_VERSION, ...(body as object) } : body;
    const answer = await request.post(`/api/scenes/ferry-steps/${path}`, { data });
    expect([400, 422]).toContain(answer.status());
    const { error } = (await answer.json()) as Fault;
    expect(error.message.length).toBeGreaterThan(10);
    expect((await sceneOf(request, 'ferry-steps')).revision).toBe(0);
  });
}

test('what is no JSON, and what is too large, is refused', async ({ request }) => {
  const headers = { 'content-type': 'application/json' };
  const broken = await request.post('/api/scenes/ferry-steps/revisions', { data: '{"base":', headers });
  expect(broken.status()).toBe(400);
  const large = await request.post('/api/scenes/ferry-steps/revisions', {
    data: 'x'.repeat(LIMITS.bodyBytes + 1),
    headers,
  });
  expect(large.status()).toBe(413);
  const deep = `{"scene":{"title":${'['.repeat(200_000)}${']'.repeat(200_000)}}}`;
  const nested = await request.post('/api/scenes/ferry-steps/copy', { data: deep, headers });
  expect(nested.status()).toBe(400);
});

test('a document of 5 MB is saved, copied and named', async ({ request }) => {
  const id = await copyOf(request, 'ferry-steps');
  const path = Array.from({ length: 12_000 }, (_, i) => (i % 3 < 2 ? 0.123456789012 : 0.5));
  const stroke = { path, size: 0.01, soft: 0.5, flow: 0.5, strength: 0.5, erase: false, pressure: 'none' };
  const pass = { id: 'p', join: 'add', kind: 'paint', strokes: Array.from({ length: 7 }, () => stroke) };
  const mattes = [{ ...MATTE, passes: Array.from({ length: 5 }, (_, i) => ({ ...pass, id: `p${i}` })) }];
  const { scene } = await sceneOf(request, id);
  expect(JSON.stringify(mattes).length).toBeGreaterThan(4.5e6);
  const saved = await request.post(`/api/scenes/${id}/revisions`, {
    data: { version: SCENE_VERSION, base: 0, entries: [entry(mattes, ['mattes'])] },
  });
  expect(saved.status()).toBe(200);
  const large = { ...scene, mattes };
  expect((await request.post(`/api/scenes/${id}/copy`, { data: { scene: large } })).status()).toBe(201);
  const named = await request.post(`/api/scenes/${id}/moments`, { data: { name: 'Large', scene: large } });
  expect(named.status()).toBe(201);
});

test('a stray percent sign in an address is a bad request, on every route', async ({ request, baseURL }) => {
  const status = (path: string) => fetch(`${baseURL}${path}`).then((answer) => answer.status);
  for (const path of ['/api/scenes/%', '/api/outputs/%ff', '/api/scenes/ferry-steps/plates/%zz', '/scenes/%'])
    expect([400, 404]).toContain(await status(path));
  expect((await request.get('/api/alive')).status()).toBe(204);
});

test('an unknown scene is a 404 on every route of it', async ({ request }) => {
  const paths = ['', '/thumbnail?of=day', '/file'];
  for (const path of paths) expect((await request.get(`/api/scenes/nobody${path}`)).status()).toBe(404);
  const bodies = {
    revisions: { version: SCENE_VERSION, base: 0, entries: [entry(-1)] },
    copy: { scene: (await sceneOf(request, 'ferry-steps')).scene },
    outputs: { format: 'png', quality: 90 },
  };
  for (const [path, data] of Object.entries(bodies)) {
    expect((await request.post(`/api/scenes/nobody/${path}`, { data })).status()).toBe(404);
  }
  expect((await request.delete('/api/scenes/nobody')).status()).toBe(404);
  const choice = { format: 'png', quality: 90 };
  for (const [scenes, status] of [
    [['nobody'], 404],
    [[], 400],
    [Array.from({ length: 61 }, () => 'ferry-steps'), 400],
  ]) {
    expect((await request.post('/api/outputs', { data: { scenes, choice } })).status()).toBe(status);
  }
  const long = { ...FIRST_SWITCHING, seconds: 20, fps: 60, long: 2560 };
  const tooLong = await request.post('/api/scenes/ferry-steps/switchings', { data: long });
  expect(tooLong.status()).toBe(413);
  expect(((await tooLong.json()) as Fault).error.message).toContain('smaller');
  expect((await request.get('/api/outputs/nobody')).status()).toBe(404);
  expect((await request.get('/api/outputs/nobody/file')).status()).toBe(404);
  expect((await request.get('/scenes/nobody')).status()).toBe(404);
});

test('queries are checked, and no path is trusted', async ({ request }) => {
  const { asset } = (await sceneOf(request, 'ferry-steps')).scene.plate;
  const { width, height } = surveySize((await sceneOf(request, 'ferry-steps')).scene.plate);
  const region = { fullWidth: width, fullHeight: height, left: 0, top: 0, width: 9, height: 6 };
  const plate = (hash: string, values: object) => {
    const query = new URLSearchParams(Object.entries(values).map(([name, value]) => [name, String(value)]));
    return request
      .get(`/api/scenes/ferry-steps/plates/${hash}?${query.toString()}`)
      .then((answer) => answer.status());
  };
  expect(await plate(asset, region)).toBe(200);
  const wrong = [
    ...[{ width: 0 }, { width: 'abc' }, { left: width }, { top: -1 }, { fullWidth: 99999 }],
    // A size of which no copy is kept.
    { fullWidth: width + 1 },
  ];
  for (const values of [{}, ...wrong.map((change) => ({ ...region, ...change }))]) {
    expect(await plate(asset, values)).toBe(400);
  }
  const large = { fullWidth: 20000, fullHeight: 9000, left: 0, top: 0, width: 20000, height: 9000 };
  expect(await plate(asset, large)).toBe(400);
  expect(await plate('..%2f..%2fetc%2fpasswd', region)).toBe(404);
  expect(await plate('0'.repeat(64), region)).toBe(404);
  const thumbnail = (of: string) => request.get(`/api/scenes/ferry-steps/thumbnail?of=${of}`);
  expect((await thumbnail('dusk')).status()).toBe(200);
  expect((await thumbnail('nobody')).status()).toBe(404);
  expect((await thumbnail('..%2F..%2Fx')).status()).toBe(400);
  expect((await request.get('/api/scenes/ferry-steps/luts/..%2f..%2fetc%2fpasswd')).status()).toBe(404);
});

test('an opening window gets the night that is kept, and the day until one is', async ({ request }) => {
  const id = await copyOf(request, 'picture-house');
  const thumbnail = async (of: string) => (await request.get(`/api/scenes/${id}/thumbnail?of=${of}`)).body();
  const opening = await thumbnail('opening');
  expect(opening.equals(await thumbnail('day'))).toBe(true);
  const night = await thumbnail('night');
  expect(opening.equals(night)).toBe(false);
  expect((await thumbnail('opening')).equals(night)).toBe(true);
});

test('results are asked for by a key of some length and a build; to another build nothing is given', async ({
  page,
  request,
}) => {
  const status = async (query: string) => (await request.get(`/api/results?${query}`)).status();
  expect(await status('build=')).toBe(400);
  expect(await status('key=survey')).toBe(400);
  expect(await status(`build=&key=${'k'.repeat(401)}`)).toBe(400);
  expect(await status('build=&key=../../scenes.sqlite')).toBe(204);
  const asked = page.waitForRequest(
    (sent) => sent.url().includes('/api/results?') && sent.url().includes('survey'),
  );
  const data = await drawnStreet(DRAWN);
  const begun = await request.post('/api/scenes?name=street.jpg', { data });
  await page.goto(`/scenes/${((await begun.json()) as { id: string }).id}`);
  const own = (await asked).url();
  const answered = async (url: string) => (await request.get(url)).status();
  await expect.poll(() => answered(own)).toBe(200);
  expect(await answered(own.replace(/build=\d+/, 'build=1'))).toBe(204);
});

test('a stale base gets 409 with the newest revision, and changes nothing', async ({ request }) => {
  const id = await copyOf(request, 'ferry-steps');
  const save = (base: number, value: number) =>
    request.post(`/api/scenes/${id}/revisions`, {
      data: { version: SCENE_VERSION, base, entries: [entry(value)] },
    });
  expect((await save(0, -1)).status()).toBe(200);
  const stale = await save(0, -5);
  expect(stale.status()).toBe(409);
  expect(((await stale.json()) as Fault).error).toMatchObject({ code: 'stale', revision: 1 });
  expect((await sceneOf(request, id)).scene.desk.ambient).toBe(-1);
});

test('other hosts and other sites are turned away, on pages and on routes', async ({ request, baseURL }) => {
  /** Sends a request whose Host is not the address that it goes to. */
  const status = (path: string, headers: Record<string, string>, method = 'GET') =>
    new Promise<number>((resolve, reject) => {
      const sent = http(new URL(path, baseURL), { method, headers }, (answer) => {
        answer.resume();
        resolve(answer.statusCode!);
      });
      sent.on('error', reject).end();
    });
  for (const path of ['/', '/scenes/ferry-steps', '/api/scenes', '/api/scenes/ferry-steps']) {
    expect(await status(path, { host: 'sundew.example' })).toBe(403);
    expect(await status(path, {})).toBe(200);
  }
  const origin = { origin: 'http://sundew.example' };
  expect(await status('/api/scenes', origin)).toBe(403);
  expect(await status('/api/scenes/ferry-steps', origin, 'DELETE')).toBe(403);
  expect((await request.get('/api/scenes/ferry-steps')).status()).toBe(200);
});

test('pages run only their own scripts and cannot be framed', async ({ request }) => {
  const headers = (await request.get('/')).headers();
  expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[\w+/=]+'/);
  expect(headers['content-security-policy']).not.toMatch(/script-src[^;]*unsafe-inline/);
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['cross-origin-opener-policy']).toBe('same-origin');
  expect(headers['cross-origin-embedder-policy']).toBe('require-corp');
  expect(headers['x-powered-by']).toBeUndefined();
});

test('workers that are files read nothing but what they run, and only one may write scripts', async ({
  request,
}) => {
  const policyOf = async (path: string) =>
    (await request.get(path)).headers()['content-security-policy'].split('; ');
  const [edges, things] = await Promise.all(['/segment-worker.js', '/detect-worker.js'].map(policyOf));
  for (const policy of [edges, things]) {
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("connect-src 'self'");
  }
  expect(things).toContain("script-src 'self' 'wasm-unsafe-eval'");
  expect(edges.join()).toContain("'unsafe-eval'");
  for (const file of ['things.json', 'things.bin', 'things.wasm', 'opencv.wasm', 'kernels.wasm']) {
    const answer = await request.get(`/${file}?build=1`);
    expect(answer.status()).toBe(200);
    expect(answer.headers()['cache-control']).toContain('immutable');
  }
});

/** A change that gives a scene one matte of an edge brush. */
const brushed = (asset: string) => ({
  id: randomUUID(),
  kind: 'do',
  label: 'Matte',
  patches: [{ op: 'replace', path: ['mattes'], value: [{ ...MATTE, passes: [{ ...PASS, asset }] }] }],
  inverse: [{ op: 'replace', path: ['mattes'], value: [] }],
});

test('what an edge brush found is kept, given back, and refused when it is none', async ({ request }) => {
  const pixels = Uint8Array.from({ length: 90 * 60 }, (_, i) => (i % 90 < 45 ? 255 : 0));
  const png = await sharp(pixels, { raw: { width: 90, height: 60, channels: 1 } })
    .png()
    .toBuffer();
  const id = await copyOf(request, 'ferry-steps');
  const post = (data: Buffer) => request.post(`/api/scenes/${id}/coverages`, { data });
  const { asset } = (await (await post(png)).json()) as { asset: string };
  const back = await request.get(`/api/scenes/${id}/coverages/${asset}`);
  expect([back.headers()['x-width'], back.headers()['x-height']]).toEqual(['90', '60']);
  expect(Buffer.compare(await back.body(), Buffer.from(pixels))).toBe(0);
  expect(((await (await post(png)).json()) as { asset: string }).asset).toBe(asset);
  for (const [status, data] of [
    [422, Buffer.from('hello')],
    [422, png.subarray(0, 60)],
    [413, Buffer.alloc(2 ** 23 + 1)],
  ] as const) {
    const answer = await post(data);
    expect(answer.status()).toBe(status);
    expect(((await answer.json()) as Fault).error.message).toMatch(/PNG|larger/);
  }
  const read = async (path: string) => (await request.get(`/api/scenes/${path}`)).status();
  expect(await read(`${id}/coverages/${'b'.repeat(64)}`)).toBe(404);
  expect(await read(`${id}/coverages/..%2Fpasswd`)).toBe(404);
  // It is what it was taken in as, and only for the scene that took it in.
  expect(await read(`${id}/luts/${asset}`)).toBe(404);
  expect(await read(`picture-house/coverages/${asset}`)).toBe(404);
  const save = (base: number, of: string) =>
    request.post(`/api/scenes/${id}/revisions`, {
      data: { version: SCENE_VERSION, base, entries: [brushed(of)] },
    });
  const missing = await save(0, 'c'.repeat(64));
  expect(missing.status()).toBe(422);
  expect(((await missing.json()) as Fault).error.message).toContain('Stroke over it again');
  expect((await save(0, asset)).ok()).toBe(true);
  const file = await request.get(`/api/scenes/${id}/file`);
  const again = await request.post('/api/scenes?name=again.sundew', { data: await file.body() });
  const { id: other } = (await again.json()) as { id: string };
  expect((await sceneOf(request, other)).scene.mattes).toEqual((await sceneOf(request, id)).scene.mattes);
});

test('a matte that refers to itself, and a surface of nothing, are refused with their reason', async ({
  request,
}) => {
  const id = await copyOf(request, 'ferry-steps');
  const set = async (path: string[], value: unknown) => {
    const patches = [{ op: 'replace', path, value }];
    const answer = await request.post(`/api/scenes/${id}/revisions`, {
      data: {
        version: SCENE_VERSION,
        base: 0,
        entries: [{ id: randomUUID(), kind: 'do', label: 'x', patches, inverse: patches }],
      },
    });
    return [answer.status(), ((await answer.json()) as Fault).error?.message] as const;
  };
  const own = { ...MATTE, passes: [{ id: 'p', join: 'add', kind: 'matte', matte: 'm' }] };
  expect(await set(['mattes'], [own])).toEqual([422, expect.stringContaining('refers to itself')]);
  const wall = { id: 'w', name: 'W', foot: [{ u: 0, v: 0.9 }], height: 3, ...PLAIN_SURFACE };
  expect(await set(['plan', 'walls'], [wall])).toEqual([422, expect.stringContaining('plan.walls[0].foot')]);
  const form = { roundness: 0, crease: 0, ...PLAIN_FINISH };
  const standee = { ...{ id: 's', name: 'S', matte: 'gone', foot: { u: 0.5, v: 0.9 } }, ...form };
  expect(await set(['plan', 'standees'], [standee])).toEqual([
    422,
    expect.stringContaining('matte that does not exist'),
  ]);
  expect((await sceneOf(request, id)).revision).toBe(0);
});
