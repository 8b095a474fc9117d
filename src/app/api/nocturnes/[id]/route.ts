import { endpoint } from '@/server/endpoint';
import { deleteNocturne } from '@/server/nocturne-repository';
import { workspace } from '@/server/workspace';

export const DELETE = endpoint<{ id: string }>((_request, { id }) => {
  deleteNocturne(workspace(), id);
  return new Response(null, { status: 204 });
});
