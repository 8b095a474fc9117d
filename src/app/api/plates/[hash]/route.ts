import { AppError } from '@/server/app-error';
import { hasAsset } from '@/server/asset-store';
import { endpoint } from '@/server/endpoint';
import { plateCodes } from '@/server/plate-codes';
import { codesRequest } from '@/server/requests';
import { workspace } from '@/server/workspace';

/** A plate at a size: interleaved RGB, 16-bit sRGB codes, little-endian. */
export const GET = endpoint<{ hash: string }>(async (request, { hash }) => {
  const size = await codesRequest.validate(Object.fromEntries(new URL(request.url).searchParams));
  const { dataDir } = workspace();
  if (!(await hasAsset(dataDir, hash)))
    throw new AppError(404, 'no-plate', 'The photo of this scene is missing.');
  const codes = await plateCodes(dataDir, hash, size);
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
