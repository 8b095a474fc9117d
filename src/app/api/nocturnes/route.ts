import { endpoint, readBody } from '@/server/endpoint';
import { keepNocturne, listNocturnes } from '@/server/nocturne-repository';
import { nocturneRequest } from '@/server/requests';
import { workspace } from '@/server/workspace';

export const GET = endpoint(() => Response.json({ nocturnes: listNocturnes(workspace()) }));

/** Keeps a night under a name. */
export const POST = endpoint(async (request) => {
  const { name, night } = await readBody(request, nocturneRequest);
  return Response.json(keepNocturne(workspace(), name, night), { status: 201 });
});
