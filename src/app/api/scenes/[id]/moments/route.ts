import { endpoint, readBody } from '@/server/http/endpoint';
import { listMoments, nameMoment } from '@/server/scenes/moment-repository';
import { momentRequest } from '@/server/http/requests';
import { workspace } from '@/server/assets/workspace';

type Params = { id: string };

export const GET = endpoint<Params>((_request, { id }) =>
  Response.json({ moments: listMoments(workspace(), id) }),
);

/** Keeps the scene as it is now under a name. */
export const POST = endpoint<Params>(async (request, { id }) => {
  const { name, scene } = await readBody(request, momentRequest);
  return Response.json(nameMoment(workspace(), id, name, scene), { status: 201 });
});
