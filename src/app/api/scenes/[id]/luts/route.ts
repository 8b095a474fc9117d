import { endpoint } from '@/server/endpoint';
import { LIMITS } from '@/server/limits';
import { takeLut } from '@/server/lut-store';
import { offerAsset } from '@/server/scene-assets';
import { workspace } from '@/server/workspace';

/** Takes a look-up table in for a scene: the body is the .cube file. */
export const POST = endpoint<{ id: string }>(async (request, { id }) =>
  Response.json(await offerAsset(workspace(), id, request.body, LIMITS.lutBytes, takeLut), { status: 201 }),
);
