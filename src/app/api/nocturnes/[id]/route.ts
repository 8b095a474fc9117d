import { endpoint } from '@/server/http/endpoint';
import { deleteNocturne } from '@/server/scenes/nocturne-repository';
import { workspace } from '@/server/assets/workspace';

export const DELETE = endpoint<{ id: string }>((_request, { id }) => {
  deleteNocturne(workspace(), id);
  return new Response(null, { status: 204 });
});
