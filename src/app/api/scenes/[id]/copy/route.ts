import { endpoint, readBody } from '@/server/http/endpoint';
import { copyRequest } from '@/server/http/requests';
import { saveCopy } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const { scene } = await readBody(request, copyRequest);
  return Response.json({ id: saveCopy(workspace(), id, scene) }, { status: 201 });
});
