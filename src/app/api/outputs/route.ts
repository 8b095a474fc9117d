import { endpoint, readBody } from '@/server/http/endpoint';
import { outputs } from '@/server/output/outputs';
import { picturesRequest } from '@/server/http/requests';
import { openScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

/** All outputs that are known of, the oldest first. */
export const GET = endpoint(() => Response.json(outputs().all()));

/** Pictures of several scenes, in one file. */
export const POST = endpoint(async (request) => {
  const { scenes: ids, choice } = await readBody(request, picturesRequest);
  const scenes = ids.map((id) => openScene(workspace(), id).scene);
  return Response.json(outputs().start({ kind: 'pictures', scenes, choice }), { status: 202 });
});
