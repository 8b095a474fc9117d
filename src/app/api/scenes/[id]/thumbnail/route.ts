import { endpoint } from '@/server/endpoint';
import { openNocturne } from '@/server/nocturne-repository';
import { serverRenderer } from '@/server/render-service';
import { thumbnailRequest } from '@/server/requests';
import { openScene } from '@/server/scene-repository';
import { jpegResponse, nocturneThumbnail, openingThumbnail, sceneThumbnail } from '@/server/thumbnail';
import { workspace } from '@/server/workspace';

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
