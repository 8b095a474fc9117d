import { switchingExtent } from '@/core/output/switching';
import { AppError } from '@/server/http/app-error';
import { endpoint, readBody } from '@/server/http/endpoint';
import { outputs } from '@/server/output/outputs';
import { switchingRequest } from '@/server/http/requests';
import { openScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const switching = await readBody(request, switchingRequest);
  const { scene } = openScene(workspace(), id);
  if (switchingExtent(scene, switching).isTooLarge) {
    const message = 'This is too long for its size. Make it smaller, shorter, or of fewer pictures a second.';
    throw new AppError(413, 'switching-too-large', message);
  }
  return Response.json(outputs().start({ kind: 'switching', scene, switching }), { status: 202 });
});
