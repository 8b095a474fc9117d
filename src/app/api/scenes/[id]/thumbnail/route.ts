import { findNocturne } from '@/core/night/nocturnes';
import { endpoint } from '@/server/endpoint';
import { serverRenderer } from '@/server/render-service';
import { thumbnailRequest } from '@/server/requests';
import { openScene } from '@/server/scene-repository';
import { nocturneThumbnail, sceneThumbnail } from '@/server/thumbnail';
import { workspace } from '@/server/workspace';

export const GET = endpoint<{ id: string }>(async (request, { id }) => {
  const { of } = await thumbnailRequest.validate(Object.fromEntries(new URL(request.url).searchParams));
  const space = workspace();
  const open = openScene(space, id);
  const renderer = serverRenderer(space.dataDir);
  const nocturne = findNocturne(of);
  const data = nocturne
    ? await nocturneThumbnail(renderer, open.scene, nocturne)
    : await sceneThumbnail(space.dataDir, renderer, open, of === 'day' ? 'day' : 'night');
  const headers = { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' };
  return new Response(new Uint8Array(data), { headers });
});
