import { endpoint } from '@/server/http/endpoint';
import { LIMITS } from '@/server/http/limits';
import { offerAsset } from '@/server/assets/scene-assets';
import { workspace } from '@/server/assets/workspace';
import { takePlaced } from '@/server/scenes/take-placed';

/** Takes in a picture to be placed in a scene: the body is any file that a plate could be. */
export const POST = endpoint<{ id: string }>(async (request, { id }) =>
  Response.json(await offerAsset(workspace(), id, request.body, LIMITS.uploadBytes, takePlaced), {
    status: 201,
  }),
);
