import { endpoint } from '@/server/endpoint';

/** Says that the server is there. */
export const GET = endpoint(() => new Response(null, { status: 204 }));
