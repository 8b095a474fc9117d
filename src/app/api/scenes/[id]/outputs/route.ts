import { endpoint, readBody } from '@/server/endpoint';
import { outputs } from '@/server/outputs';
import { outputRequest } from '@/server/requests';
import { openScene } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const choice = await readBody(request, outputRequest);
  const { scene } = openScene(workspace(), id);
  return Response.json(outputs().start(scene, choice), { status: 202 });
});
