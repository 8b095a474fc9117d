import { Readable } from 'node:stream';
import { receiveFile } from '@/server/assets/asset-store';
import { endpoint } from '@/server/http/endpoint';
import { beginScene } from '@/server/scenes/intake';
import { LIMITS } from '@/server/http/limits';
import { listScenes } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

export const GET = endpoint(() => Response.json({ scenes: listScenes(workspace()) }));

/** Begins a scene: the body is the photo, its name comes in the query. */
export const POST = endpoint(async (request) => {
  const space = workspace();
  const name = new URL(request.url).searchParams.get('name') ?? '';
  const received = await receiveFile(space.dataDir, request.body ?? Readable.from([]), LIMITS.uploadBytes);
  return Response.json(await beginScene(space, received, name), { status: 201 });
});
