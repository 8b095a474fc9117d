import { endpoint } from '@/server/http/endpoint';
import { lutBytes } from '@/server/assets/lut-store';
import { requireReadable } from '@/server/assets/scene-assets';
import { workspace } from '@/server/assets/workspace';

/** A look-up table of a scene as the .cube file that was taken in. */
export const GET = endpoint<{ id: string; hash: string }>(async (_request, { id, hash }) => {
  const space = workspace();
  requireReadable(space, id, 'lut', hash);
  const headers = { 'content-type': 'text/plain', 'cache-control': 'private, max-age=31536000, immutable' };
  const bytes = await lutBytes(space.dataDir, hash);
  return new Response(bytes as Uint8Array<ArrayBuffer>, { headers });
});
