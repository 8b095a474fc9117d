import { endpoint } from '@/server/http/endpoint';
import { resultRequest } from '@/server/http/requests';
import { servedResults } from '@/server/output/render-service';

/** What the server's renderer found while it made a scene's pictures, for a window that opens it; empty where there is nothing. */
export const GET = endpoint(async (request) => {
  const { key } = await resultRequest.validate(Object.fromEntries(new URL(request.url).searchParams));
  const packed = await servedResults().take(key);
  return packed
    ? new Response(packed, { headers: { 'content-type': 'application/octet-stream' } })
    : new Response(null, { status: 204 });
});
