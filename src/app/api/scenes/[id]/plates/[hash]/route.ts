import { endpoint } from '@/server/http/endpoint';
import { requireServed } from '@/server/plates/plate-codes';
import { regionRequest } from '@/server/http/requests';
import { requireReadable } from '@/server/assets/scene-assets';
import { workspace } from '@/server/assets/workspace';

/** A region of a scene's plate at one of the sizes that are served: interleaved RGB, 16-bit sRGB codes, little-endian. */
export const GET = endpoint<{ id: string; hash: string }>(async (request, { id, hash }) => {
  const region = await regionRequest.validate(Object.fromEntries(new URL(request.url).searchParams));
  const space = workspace();
  requireServed(requireReadable(space, id, 'plate', hash), region);
  const codes = await space.plates.read(hash, region, request.signal);
  const headers = {
    'content-type': 'application/octet-stream',
    'cache-control': 'private, max-age=31536000, immutable',
  };
  const bytes = new Uint8Array(codes.buffer, codes.byteOffset, codes.byteLength);
  return new Response(bytes as Uint8Array<ArrayBuffer>, { headers });
});
