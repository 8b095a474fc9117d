import { endpoint } from '@/server/http/endpoint';
import { forgetMoment, momentScene } from '@/server/scenes/moment-repository';
import { workspace } from '@/server/assets/workspace';

type Params = { id: string; moment: string };

export const GET = endpoint<Params>((_request, { id, moment }) =>
  Response.json({ scene: momentScene(workspace(), id, moment) }),
);

export const DELETE = endpoint<Params>((_request, { id, moment }) => {
  forgetMoment(workspace(), id, moment);
  return new Response(null, { status: 204 });
});
