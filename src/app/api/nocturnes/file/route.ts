import { endpoint, readText } from '@/server/endpoint';
import { LIMITS } from '@/server/limits';
import { takeNocturne } from '@/server/nocturne-repository';
import { workspace } from '@/server/workspace';

/** Keeps the nocturne of a file, which is the body. */
export const POST = endpoint(async (request) =>
  Response.json(await takeNocturne(workspace(), await readText(request, LIMITS.lutBytes)), { status: 201 }),
);
