import { endpoint, readBody } from '@/server/http/endpoint';
import { saveRequest } from '@/server/http/requests';
import { saveEntries } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const save = await readBody(request, saveRequest);
  return Response.json({ revision: saveEntries(workspace(), id, save) });
});
