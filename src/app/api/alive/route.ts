import { endpoint } from '@/server/http/endpoint';

/** Says that the server is there. */
export const GET = endpoint(() => new Response(null, { status: 204 }));
