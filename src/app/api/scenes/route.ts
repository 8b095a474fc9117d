import { Readable } from 'node:stream';
import { receiveFile } from '@/server/assets/asset-store';
import { endpoint } from '@/server/http/endpoint';
import { beginScene } from '@/server/scenes/intake';
import { LIMITS } from '@/server/http/limits';
import { listScenes, openScene } from '@/server/scenes/scene-repository';
import { lookAhead } from '@/server/output/look-ahead';
import { serverRenderer } from '@/server/output/render-service';
import { workspace } from '@/server/assets/workspace';

export const GET = endpoint(() => Response.json({ scenes: listScenes(workspace()) }));

/** Begins a scene: the body is the photo, its name comes in the query. */
export const POST = endpoint(async (request) => {
  const space = workspace();
  const name = new URL(request.url).searchParams.get('name') ?? '';
  const received = await receiveFile(space.dataDir, request.body ?? Readable.from([]), LIMITS.uploadBytes);
  const begun = await beginScene(space, received, name);
  void lookAhead(serverRenderer(), openScene(space, begun.id).scene);
  return Response.json(begun, { status: 201 });
});
