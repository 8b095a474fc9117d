import { takeCoverage } from '@/server/assets/coverage-store';
import { endpoint } from '@/server/http/endpoint';
import { LIMITS } from '@/server/http/limits';
import { offerAsset } from '@/server/assets/scene-assets';
import { workspace } from '@/server/assets/workspace';

/** Takes in what an edge brush found in a scene: the body is a PNG. */
export const POST = endpoint<{ id: string }>(async (request, { id }) =>
  Response.json(await offerAsset(workspace(), id, request.body, LIMITS.coverageBytes, takeCoverage), {
    status: 201,
  }),
);
