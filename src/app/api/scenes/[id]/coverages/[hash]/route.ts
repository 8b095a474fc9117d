import { loadCoverage } from '@/server/assets/coverage-store';
import { endpoint } from '@/server/http/endpoint';
import { requireReadable } from '@/server/assets/scene-assets';
import { workspace } from '@/server/assets/workspace';

/** What an edge brush found in a scene: a byte a pixel, its size in the head. */
export const GET = endpoint<{ id: string; hash: string }>(async (_request, { id, hash }) => {
  const space = workspace();
  requireReadable(space, id, 'coverage', hash);
  const { width, height, data } = await loadCoverage(space.dataDir, hash);
  const headers = {
    'content-type': 'application/octet-stream',
    'cache-control': 'private, max-age=31536000, immutable',
    'x-width': String(width),
    'x-height': String(height),
  };
  return new Response(data as Uint8Array<ArrayBuffer>, { headers });
});
