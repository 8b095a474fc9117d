import { endpoint, readBody } from '@/server/http/endpoint';
import { outputs } from '@/server/output/outputs';
import { outputRequest } from '@/server/http/requests';
import { openScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const choice = await readBody(request, outputRequest);
  const { scene } = openScene(workspace(), id);
  return Response.json(outputs().start({ kind: 'picture', scene, choice }), { status: 202 });
});
