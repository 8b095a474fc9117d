import { endpoint, readBody } from '@/server/http/endpoint';
import { outputRequest } from '@/server/http/requests';
import { estimator } from '@/server/output/outputs';
import { openScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

/** About how large an output will be, bytes. */
export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const choice = await readBody(request, outputRequest);
  const open = openScene(workspace(), id);
  return Response.json({ bytes: await estimator().bytes(open, choice, request.signal) });
});
