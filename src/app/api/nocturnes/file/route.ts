import { endpoint, readText } from '@/server/http/endpoint';
import { LIMITS } from '@/server/http/limits';
import { takeNocturne } from '@/server/scenes/nocturne-repository';
import { workspace } from '@/server/assets/workspace';

/** Keeps the nocturne of a file, which is the body. */
export const POST = endpoint(async (request) =>
  Response.json(await takeNocturne(workspace(), await readText(request, LIMITS.lutBytes)), { status: 201 }),
);
