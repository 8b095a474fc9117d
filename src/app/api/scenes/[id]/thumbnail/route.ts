import { endpoint } from '@/server/http/endpoint';
import { openNocturne } from '@/server/scenes/nocturne-repository';
import { serverRenderer } from '@/server/output/render-service';
import { thumbnailRequest } from '@/server/http/requests';
import { openScene } from '@/server/scenes/scene-repository';
import { jpegResponse, nocturneThumbnail, openingThumbnail, sceneThumbnail } from '@/server/output/thumbnail';
import { workspace } from '@/server/assets/workspace';

/** A small picture of a scene: its day, its night, either of them while it opens, or another night on its plate. */
export const GET = endpoint<{ id: string }>(async (request, { id }) => {
  const { of } = await thumbnailRequest.validate(Object.fromEntries(new URL(request.url).searchParams));
  const space = workspace();
  const open = openScene(space, id);
  const renderer = serverRenderer();
  const { signal } = request;
  if (of === 'opening') {
    return jpegResponse(await openingThumbnail(space.dataDir, space.plates, renderer, open, signal), false);
  }
  return jpegResponse(
    of === 'day' || of === 'night'
      ? await sceneThumbnail(space.dataDir, space.plates, renderer, open, of, signal)
      : await nocturneThumbnail(renderer, open.scene, openNocturne(space, of), signal),
  );
});
