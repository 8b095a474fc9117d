import { endpoint } from '@/server/http/endpoint';
import { resultRequest } from '@/server/http/requests';
import { servedResults } from '@/server/output/render-service';

/** What the server's renderer found while it made a scene's pictures, for a window that opens it; empty where there is nothing. */
export const GET = endpoint(async (request) => {
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  const { key, build } = await resultRequest.validate(asked);
  // A window that was opened before an update may make another picture.
  const isOurs = build === (process.env.SUNDEW_BUILD ?? '');
  const packed = isOurs ? await servedResults().take(key) : undefined;
  return packed
    ? new Response(packed, { headers: { 'content-type': 'application/octet-stream' } })
    : new Response(null, { status: 204 });
});
