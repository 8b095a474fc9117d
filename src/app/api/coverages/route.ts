import { Readable } from 'node:stream';
import { receiveFile } from '@/server/asset-store';
import { takeCoverage } from '@/server/coverage-store';
import { endpoint } from '@/server/endpoint';
import { LIMITS } from '@/server/limits';
import { workspace } from '@/server/workspace';

/** Takes in what an edge brush found: the body is a PNG. */
export const POST = endpoint(async (request) => {
  const space = workspace();
  const received = await receiveFile(space.dataDir, request.body ?? Readable.from([]), LIMITS.coverageBytes);
  return Response.json(await takeCoverage(space, received), { status: 201 });
});
