import { SCENE_VERSION, type Scene } from '@/core/scene/schema';
import type { LogEntry } from '@/core/scene/history';
import type { OpenScene } from '@/core/scene/opened-scene';

/** An answer, and how long it took. */
export interface Answer {
  /** 0 when none came. */
  status: number;
  text: string;
  milliseconds: number;
}

/** Longest wait for an answer before it counts as none, milliseconds. */
const PATIENCE = 120_000;

/** Asks a server, and never throws. */
export async function ask(url: string, init?: RequestInit): Promise<Answer> {
  const from = performance.now();
  try {
    const answer = await fetch(url, { ...init, signal: AbortSignal.timeout(PATIENCE) });
    const text = await answer.text();
    return { status: answer.status, text, milliseconds: performance.now() - from };
  } catch {
    return { status: 0, text: '', milliseconds: performance.now() - from };
  }
}

const json = (body: unknown): RequestInit => ({
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

export const post = (url: string, body: unknown) => ask(url, json(body));
export const upload = (url: string, bytes: Uint8Array) =>
  ask(url, { method: 'POST', body: new Uint8Array(bytes) });

export async function openScene(url: string, id: string): Promise<OpenScene> {
  return JSON.parse((await ask(`${url}/api/scenes/${id}`)).text) as OpenScene;
}

export const save = (url: string, id: string, base: number, entries: LogEntry[]) =>
  post(`${url}/api/scenes/${id}/revisions`, { version: SCENE_VERSION, base, entries });

/** A scene of its own, beside the one that it is copied from. Returns its id. */
export async function copyScene(url: string, id: string, scene?: Scene): Promise<string> {
  const document = scene ?? (await openScene(url, id)).scene;
  return (
    JSON.parse((await post(`${url}/api/scenes/${id}/copy`, { scene: document })).text) as { id: string }
  ).id;
}

/** An entry that sets a number of the desk. */
export const dimTo = (value: number): LogEntry => ({
  id: crypto.randomUUID(),
  kind: 'do',
  label: 'Ambient',
  patches: [{ op: 'replace', path: ['desk', 'ambient'], value }],
  inverse: [{ op: 'replace', path: ['desk', 'ambient'], value: 0 }],
});

/** Sends a scene out at full size and waits for it. */
export async function sendOut(url: string, id: string, format: 'jpeg' | 'png'): Promise<string> {
  const started = await post(`${url}/api/scenes/${id}/outputs`, { format, quality: 90 });
  const { id: job } = JSON.parse(started.text) as { id: string };
  for (;;) {
    const { text } = await ask(`${url}/api/outputs/${job}`);
    const { state, reason } = JSON.parse(text) as { state: string; reason?: string };
    if (state !== 'waiting' && state !== 'running') return reason ?? state;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/** Asks for something light again and again, and notes the longest wait. Returns what ends it. */
export function watchWaits(url: string): () => Promise<number> {
  let longest = 0;
  let ended = false;
  const watching = (async () => {
    while (!ended) {
      const { milliseconds } = await ask(`${url}/api/scenes`);
      longest = Math.max(longest, milliseconds);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
  return async () => {
    ended = true;
    await watching;
    return longest;
  };
}
