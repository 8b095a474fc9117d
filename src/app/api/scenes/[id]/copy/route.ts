import { endpoint, readBody } from '@/server/endpoint';
import { copyRequest } from '@/server/requests';
import { saveCopy } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const { scene } = await readBody(request, copyRequest);
  return Response.json({ id: saveCopy(workspace(), id, scene) }, { status: 201 });
});
