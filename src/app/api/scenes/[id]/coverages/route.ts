import { takeCoverage } from '@/server/coverage-store';
import { endpoint } from '@/server/endpoint';
import { LIMITS } from '@/server/limits';
import { offerAsset } from '@/server/scene-assets';
import { workspace } from '@/server/workspace';

/** Takes in what an edge brush found in a scene: the body is a PNG. */
export const POST = endpoint<{ id: string }>(async (request, { id }) =>
  Response.json(await offerAsset(workspace(), id, request.body, LIMITS.coverageBytes, takeCoverage), {
    status: 201,
  }),
);
