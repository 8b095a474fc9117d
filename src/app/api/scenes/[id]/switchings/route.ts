import { framedSize } from '@/core/frame/frame';
import { outputSize } from '@/core/output/output-formats';
import { MOST_SWITCHING_PIXELS, readySwitching } from '@/core/output/switching';
import { AppError } from '@/server/http/app-error';
import { endpoint, readBody } from '@/server/http/endpoint';
import { outputs } from '@/server/output/outputs';
import { switchingRequest } from '@/server/http/requests';
import { openScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

export const POST = endpoint<{ id: string }>(async (request, { id }) => {
  const switching = await readBody(request, switchingRequest);
  const { scene } = openScene(workspace(), id);
  const { width, height } = outputSize(framedSize(scene.plate, scene.frame), switching.long);
  if (width * height * readySwitching(scene, switching).frames > MOST_SWITCHING_PIXELS) {
    const message = 'This is too long for its size. Make it smaller, shorter, or of fewer pictures a second.';
    throw new AppError(413, 'switching-too-large', message);
  }
  return Response.json(outputs().start({ kind: 'switching', scene, switching }), { status: 202 });
});
