import { endpoint } from '@/server/http/endpoint';
import { sceneAfter } from '@/server/scenes/moment-repository';
import { serverRenderer } from '@/server/output/render-service';
import { entryThumbnail, jpegResponse } from '@/server/output/thumbnail';
import { workspace } from '@/server/assets/workspace';

/** A small picture of the scene as it was after one entry of its log. */
export const GET = endpoint<{ id: string; entry: string }>(async (request, { id, entry }) => {
  const space = workspace();
  const scene = sceneAfter(space, id, entry);
  return jpegResponse(await entryThumbnail(space.dataDir, serverRenderer(), scene, entry, request.signal));
});
