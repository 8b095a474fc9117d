import { endpoint, readBody } from '@/server/http/endpoint';
import { keepNocturne, listNocturnes } from '@/server/scenes/nocturne-repository';
import { nocturneRequest } from '@/server/http/requests';
import { workspace } from '@/server/assets/workspace';

export const GET = endpoint(() => Response.json({ nocturnes: listNocturnes(workspace()) }));

/** Keeps a night under a name. */
export const POST = endpoint(async (request) => {
  const { name, night } = await readBody(request, nocturneRequest);
  return Response.json(keepNocturne(workspace(), name, night), { status: 201 });
});
