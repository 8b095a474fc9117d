import type { LogEntry } from '@/core/scene/history';
import type { Region } from '@/core/plane/region';
import type { OpenScene } from '@/core/scene/opened-scene';
import type { Scene } from '@/core/scene/schema';

/** A fault that the server told of. `status` 0: it did not answer. */
export class ApiError extends Error {
  override name = 'ApiError';
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

const UNREACHABLE = 'The server does not answer. Start it again with npm run demo.';

async function faultOf(response: Response): Promise<ApiError> {
  const body = (await response.json().catch(() => undefined)) as
    { error?: { code?: string; message?: string } } | undefined;
  const { code = 'fault', message = `The server answered ${response.status}.` } = body?.error ?? {};
  return new ApiError(response.status, code, message);
}

async function request(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ApiError(0, 'unreachable', UNREACHABLE);
  }
  if (!response.ok) throw await faultOf(response);
  return response;
}

const post = (path: string, body: unknown, init?: RequestInit) =>
  request(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    ...init,
  });

/** A picture on its way out, as the server tells of it. */
export interface OutputProgress {
  id: string;
  state: 'running' | 'done' | 'failed' | 'cancelled';
  progress: number;
  fileName: string;
  bytes?: number;
  reason?: string;
}

export interface OutputOrder {
  format: 'jpeg' | 'png';
  quality: number;
}

/** The server's routes, typed. Every one throws ApiError. */
export const api = {
  async openScene(sceneId: string): Promise<OpenScene> {
    return (await (await request(`/api/scenes/${sceneId}`, { cache: 'no-store' })).json()) as OpenScene;
  },
  async save(sceneId: string, base: number, entries: LogEntry[]): Promise<number> {
    const response = await post(`/api/scenes/${sceneId}/revisions`, { base, entries });
    return ((await response.json()) as { revision: number }).revision;
  },
  async copy(sceneId: string, scene: Scene): Promise<string> {
    const response = await post(`/api/scenes/${sceneId}/copy`, { scene });
    return ((await response.json()) as { id: string }).id;
  },
  async deleteScene(sceneId: string): Promise<void> {
    await request(`/api/scenes/${sceneId}`, { method: 'DELETE' });
  },
  async beginScene(file: File, signal: AbortSignal): Promise<string> {
    const path = `/api/scenes?name=${encodeURIComponent(file.name)}`;
    const response = await request(path, { method: 'POST', body: file, signal });
    return ((await response.json()) as { id: string }).id;
  },
  async plateCodes(asset: string, region: Region, signal: AbortSignal): Promise<Uint16Array> {
    const query = new URLSearchParams(Object.entries(region).map(([name, value]) => [name, String(value)]));
    const response = await request(`/api/plates/${asset}?${query.toString()}`, { signal });
    return new Uint16Array(await response.arrayBuffer());
  },
  async startOutput(sceneId: string, order: OutputOrder): Promise<OutputProgress> {
    return (await (await post(`/api/scenes/${sceneId}/outputs`, order)).json()) as OutputProgress;
  },
  async outputProgress(id: string): Promise<OutputProgress> {
    return (await (await request(`/api/outputs/${id}`)).json()) as OutputProgress;
  },
  async cancelOutput(id: string): Promise<OutputProgress> {
    return (await (await request(`/api/outputs/${id}`, { method: 'DELETE' })).json()) as OutputProgress;
  },
  outputFile: (id: string) => `/api/outputs/${id}/file`,
  sceneFile: (sceneId: string) => `/api/scenes/${sceneId}/file`,
  /** `of`: the day, the night as it is, or a nocturne's id. `version` keeps older pictures out of the browser's memory. */
  thumbnail: (sceneId: string, of: string, version: number | string) =>
    `/api/scenes/${sceneId}/thumbnail?of=${of}&v=${version}`,
};
