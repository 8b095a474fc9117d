import type { TakenPicture } from '@/core/placed/taken-picture';
import type { OutputChoice } from '@/core/output/output-formats';
import type { TableSide } from '@/core/output/night-table';
import type { Switching } from '@/core/output/switching';
import { SCENE_VERSION } from '@/core/scene/schema';
import type { LogEntry } from '@/core/scene/history';
import type { Region } from '@/core/plane/region';
import type { CoveragePicture } from '@/core/matte/coverage-picture';
import type { OpenScene, SceneSummary } from '@/core/scene/opened-scene';
import type { Nocturne } from '@/core/night/nocturnes';
import type { Night, Scene } from '@/core/scene/schema';
import type { Begun, Moment, NightTable, OutputProgress } from './answers';
import { noteAnswer } from './connection';

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

/** Notes that an answer did not come, and gives the fault. */
function unreachable(): ApiError {
  noteAnswer(false);
  return new ApiError(0, 'unreachable', UNREACHABLE);
}

function faultOf(status: number, answer: unknown): ApiError {
  const body = answer as { error?: { code?: string; message?: string } } | undefined;
  const { code = 'fault', message = `The server answered ${status}.` } = body?.error ?? {};
  return new ApiError(status, code, message);
}

/** Posts a file, telling how far it has come, which a fetch cannot. */
function sendFile(
  path: string,
  file: File,
  signal: AbortSignal,
  onSent: (share: number) => void,
): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const sending = new XMLHttpRequest();
    sending.open('POST', path);
    sending.responseType = 'json';
    sending.upload.onprogress = ({ loaded, total }) => onSent(total > 0 ? loaded / total : 0);
    sending.onload = () => {
      if (sending.status < 300) resolve(sending.response);
      else reject(faultOf(sending.status, sending.response));
    };
    sending.onerror = () => reject(unreachable());
    sending.onabort = () => reject(new DOMException('The upload was given up.', 'AbortError'));
    signal.addEventListener('abort', () => sending.abort());
    sending.send(file);
  });
}

async function request(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw unreachable();
  }
  noteAnswer(true);
  if (!response.ok) throw faultOf(response.status, await response.json().catch(() => undefined));
  return response;
}

const post = (path: string, body: unknown, init?: RequestInit) =>
  request(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    ...init,
  });

/** The server's routes, typed. Every one throws ApiError. */
export const api = {
  /** Settles when the server is there. */
  async alive(): Promise<void> {
    await request('/api/alive', { cache: 'no-store' });
  },
  async openScene(sceneId: string): Promise<OpenScene> {
    return (await (await request(`/api/scenes/${sceneId}`, { cache: 'no-store' })).json()) as OpenScene;
  },
  /** All scenes of the wall. */
  async scenes(): Promise<SceneSummary[]> {
    const answer = await request('/api/scenes', { cache: 'no-store' });
    return ((await answer.json()) as { scenes: SceneSummary[] }).scenes;
  },
  async save(sceneId: string, base: number, entries: LogEntry[]): Promise<number> {
    const response = await post(`/api/scenes/${sceneId}/revisions`, {
      version: SCENE_VERSION,
      base,
      entries,
    });
    return ((await response.json()) as { revision: number }).revision;
  },
  async copy(sceneId: string, scene: Scene): Promise<string> {
    const response = await post(`/api/scenes/${sceneId}/copy`, { scene });
    return ((await response.json()) as { id: string }).id;
  },
  async deleteScene(sceneId: string): Promise<void> {
    await request(`/api/scenes/${sceneId}`, { method: 'DELETE' });
  },
  /** `onSent` gets the share of the file that has left, 0 to 1. */
  async beginScene(file: File, signal: AbortSignal, onSent: (share: number) => void): Promise<Begun> {
    const path = `/api/scenes?name=${encodeURIComponent(file.name)}`;
    return (await sendFile(path, file, signal, onSent)) as Begun;
  },
  async plateCodes(
    sceneId: string,
    asset: string,
    region: Region,
    signal?: AbortSignal,
  ): Promise<Uint16Array> {
    const query = new URLSearchParams(Object.entries(region).map(([name, value]) => [name, String(value)]));
    const response = await request(`/api/scenes/${sceneId}/plates/${asset}?${query.toString()}`, { signal });
    return new Uint16Array(await response.arrayBuffer());
  },
  /** What the server's renderer found for a picture of the same scene, packed, where it has. */
  async result(key: string): Promise<ArrayBuffer | undefined> {
    const query = new URLSearchParams({ key, build: process.env.SUNDEW_BUILD ?? '' });
    const response = await request(`/api/results?${query.toString()}`, { cache: 'no-store' });
    return response.status === 204 ? undefined : response.arrayBuffer();
  },
  async takeLut(sceneId: string, file: File): Promise<{ asset: string }> {
    const answer = await request(`/api/scenes/${sceneId}/luts`, { method: 'POST', body: file });
    return (await answer.json()) as { asset: string };
  },
  async takeSky(sceneId: string, file: File): Promise<{ asset: string; width: number; height: number }> {
    const answer = await request(`/api/scenes/${sceneId}/skies`, { method: 'POST', body: file });
    return (await answer.json()) as { asset: string; width: number; height: number };
  },
  /** Takes in a picture to be placed. */
  async takePlaced(sceneId: string, file: Blob): Promise<TakenPicture> {
    const answer = await request(`/api/scenes/${sceneId}/placed`, { method: 'POST', body: file });
    return (await answer.json()) as TakenPicture;
  },
  async lutText(sceneId: string, asset: string, signal: AbortSignal): Promise<string> {
    return (await request(`/api/scenes/${sceneId}/luts/${asset}`, { signal })).text();
  },
  /** Keeps what an edge brush found: a PNG. Returns its asset. */
  async keepCoverage(sceneId: string, png: Blob): Promise<string> {
    const answer = await request(`/api/scenes/${sceneId}/coverages`, { method: 'POST', body: png });
    return ((await answer.json()) as { asset: string }).asset;
  },
  async coverage(sceneId: string, asset: string, signal?: AbortSignal): Promise<CoveragePicture> {
    const answer = await request(`/api/scenes/${sceneId}/coverages/${asset}`, { signal });
    const size = (name: string) => Number(answer.headers.get(name));
    const data = new Uint8Array(await answer.arrayBuffer());
    return { width: size('x-width'), height: size('x-height'), data };
  },
  async nocturnes(): Promise<Nocturne[]> {
    const answer = await request('/api/nocturnes', { cache: 'no-store' });
    return ((await answer.json()) as { nocturnes: Nocturne[] }).nocturnes;
  },
  async keepNocturne(name: string, night: Night): Promise<void> {
    await post('/api/nocturnes', { name, night });
  },
  async takeNocturne(file: File): Promise<Nocturne> {
    return (await (await request('/api/nocturnes/file', { method: 'POST', body: file })).json()) as Nocturne;
  },
  async deleteNocturne(id: string): Promise<void> {
    await request(`/api/nocturnes/${id}`, { method: 'DELETE' });
  },
  nocturneFile: (id: string) => `/api/nocturnes/${id}/file`,
  async moments(sceneId: string): Promise<Moment[]> {
    const answer = await request(`/api/scenes/${sceneId}/moments`, { cache: 'no-store' });
    return ((await answer.json()) as { moments: Moment[] }).moments;
  },
  async nameMoment(sceneId: string, name: string, scene: Scene): Promise<void> {
    await post(`/api/scenes/${sceneId}/moments`, { name, scene });
  },
  async momentScene(sceneId: string, id: string): Promise<Scene> {
    const answer = await request(`/api/scenes/${sceneId}/moments/${id}`);
    return ((await answer.json()) as { scene: Scene }).scene;
  },
  async forgetMoment(sceneId: string, id: string): Promise<void> {
    await request(`/api/scenes/${sceneId}/moments/${id}`, { method: 'DELETE' });
  },
  entryThumbnail: (sceneId: string, entryId: string) => `/api/scenes/${sceneId}/entries/${entryId}/thumbnail`,
  async startOutput(sceneId: string, order: OutputChoice): Promise<OutputProgress> {
    return (await (await post(`/api/scenes/${sceneId}/outputs`, order)).json()) as OutputProgress;
  },
  /** The lights of a scene coming on. */
  async startSwitching(sceneId: string, switching: Switching): Promise<OutputProgress> {
    return (await (await post(`/api/scenes/${sceneId}/switchings`, switching)).json()) as OutputProgress;
  },
  /** Pictures of several scenes, in one file. */
  async startPictures(scenes: string[], choice: OutputChoice): Promise<OutputProgress> {
    return (await (await post('/api/outputs', { scenes, choice })).json()) as OutputProgress;
  },
  /** A scene's night as the text of a table of colours. */
  async nightTable(sceneId: string, side: TableSide): Promise<NightTable> {
    const answer = await request(`/api/scenes/${sceneId}/table?side=${side}`, { cache: 'no-store' });
    return (await answer.json()) as NightTable;
  },
  /** Everything on its way out, and what came of the last ones. */
  async outputs(): Promise<OutputProgress[]> {
    return (await (await request('/api/outputs', { cache: 'no-store' })).json()) as OutputProgress[];
  },
  /** About how large an output will be, bytes; undefined where that is not known. */
  async estimate(sceneId: string, order: OutputChoice, signal: AbortSignal): Promise<number | undefined> {
    const answer = await post(`/api/scenes/${sceneId}/outputs/estimate`, order, { signal });
    return ((await answer.json()) as { bytes?: number }).bytes;
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
  /** What to show until a window's own first frame is there. */
  opening: (sceneId: string) => `/api/scenes/${sceneId}/thumbnail?of=opening`,
};
