import { endpoint, readBody } from '@/server/endpoint';
import { saveRequest } from '@/server/requests';
import { saveEntries } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const save = await readBody(request, saveRequest);
  return Response.json({ revision: saveEntries(workspace(), id, save) });
});
