import { Readable } from 'node:stream';
import { receiveFile } from '@/server/asset-store';
import { endpoint } from '@/server/endpoint';
import { beginScene } from '@/server/intake';
import { LIMITS } from '@/server/limits';
import { listScenes } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';

export const GET = endpoint(() => Response.json({ scenes: listScenes(workspace()) }));

/** Begins a scene: the body is the photo, its name comes in the query. */
export const POST = endpoint(async (request) => {
  const space = workspace();
  const name = new URL(request.url).searchParams.get('name') ?? '';
  const received = await receiveFile(space.dataDir, request.body ?? Readable.from([]), LIMITS.uploadBytes);
  return Response.json(await beginScene(space, received, name), { status: 201 });
});
