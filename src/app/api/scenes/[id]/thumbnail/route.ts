import { endpoint } from '@/server/endpoint';
import { serverRenderer } from '@/server/render-service';
import { thumbnailRequest } from '@/server/requests';
import { openScene } from '@/server/scene-repository';
import { sceneThumbnail } from '@/server/thumbnail';
import { workspace } from '@/server/workspace';

export const GET = endpoint<{ id: string }>(async (request, { id }) => {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  const { of } = await thumbnailRequest.validate(query);
  const space = workspace();
  const data = await sceneThumbnail(space.dataDir, serverRenderer(space.dataDir), openScene(space, id), of);
  const headers = { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' };
  return new Response(new Uint8Array(data), { headers });
});
