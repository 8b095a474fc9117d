import { endpoint } from '@/server/endpoint';
import { sceneAfter } from '@/server/moment-repository';
import { serverRenderer } from '@/server/render-service';
import { entryThumbnail, jpegResponse } from '@/server/thumbnail';
import { workspace } from '@/server/workspace';

/** A small picture of the scene as it was after one entry of its log. */
export const GET = endpoint<{ id: string; entry: string }>(async (request, { id, entry }) => {
  const space = workspace();
  const scene = sceneAfter(space, id, entry);
  return jpegResponse(await entryThumbnail(space.dataDir, serverRenderer(), scene, entry, request.signal));
});
