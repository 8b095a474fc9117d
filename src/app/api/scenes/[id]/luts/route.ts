import { endpoint } from '@/server/http/endpoint';
import { LIMITS } from '@/server/http/limits';
import { takeLut } from '@/server/assets/lut-store';
import { offerAsset } from '@/server/assets/scene-assets';
import { workspace } from '@/server/assets/workspace';

/** Takes a look-up table in for a scene: the body is the .cube file. */
export const POST = endpoint<{ id: string }>(async (request, { id }) =>
  Response.json(await offerAsset(workspace(), id, request.body, LIMITS.lutBytes, takeLut), { status: 201 }),
);
