import { endpoint } from '@/server/endpoint';
import { lutBytes } from '@/server/lut-store';
import { workspace } from '@/server/workspace';

/** A look-up table as the .cube file that was taken in. */
export const GET = endpoint<{ hash: string }>(async (_request, { hash }) => {
  const headers = { 'content-type': 'text/plain', 'cache-control': 'private, max-age=31536000, immutable' };
  const bytes = await lutBytes(workspace().dataDir, hash);
  return new Response(bytes as Uint8Array<ArrayBuffer>, { headers });
});
