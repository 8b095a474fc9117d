import { endpoint } from '@/server/http/endpoint';
import { LIMITS } from '@/server/http/limits';
import { offerAsset } from '@/server/assets/scene-assets';
import { workspace } from '@/server/assets/workspace';
import { takeSky } from '@/server/scenes/intake';

/** Takes in a picture of a sky for a scene: the body is any file that a plate could be. */
export const POST = endpoint<{ id: string }>(async (request, { id }) =>
  Response.json(await offerAsset(workspace(), id, request.body, LIMITS.uploadBytes, takeSky), {
    status: 201,
  }),
);
