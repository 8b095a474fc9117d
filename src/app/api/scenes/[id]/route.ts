import { endpoint } from '@/server/endpoint';
import { deleteScene, openScene } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';

type Params = { id: string };

export const GET = endpoint<Params>((_request, { id }) => Response.json(openScene(workspace(), id)));

export const DELETE = endpoint<Params>((_request, { id }) => {
  deleteScene(workspace(), id);
  return new Response(null, { status: 204 });
});
