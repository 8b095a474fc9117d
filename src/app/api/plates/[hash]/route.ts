import { AppError } from '@/server/app-error';
import { hasAsset } from '@/server/asset-store';
import { endpoint } from '@/server/endpoint';
import { regionRequest } from '@/server/requests';
import { workspace } from '@/server/workspace';

/** A region of a plate at a size: interleaved RGB, 16-bit sRGB codes, little-endian. */
export const GET = endpoint<{ hash: string }>(async (request, { hash }) => {
  const region = await regionRequest.validate(Object.fromEntries(new URL(request.url).searchParams));
  const { dataDir, plates } = workspace();
  if (!(await hasAsset(dataDir, hash)))
    throw new AppError(404, 'no-plate', 'The photo of this scene is missing.');
  const codes = await plates.read(hash, region);
  const headers = {
    'content-type': 'application/octet-stream',
    'cache-control': 'private, max-age=31536000, immutable',
  };
  return new Response(
    new Uint8Array(codes.buffer, codes.byteOffset, codes.byteLength) as Uint8Array<ArrayBuffer>,
    {
      headers,
    },
  );
});
