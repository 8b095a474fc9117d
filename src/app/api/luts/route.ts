import { Readable } from 'node:stream';
import { receiveFile } from '@/server/asset-store';
import { endpoint } from '@/server/endpoint';
import { LIMITS } from '@/server/limits';
import { takeLut } from '@/server/lut-store';
import { workspace } from '@/server/workspace';

/** Takes a look-up table in: the body is the .cube file. */
export const POST = endpoint(async (request) => {
  const space = workspace();
  const received = await receiveFile(space.dataDir, request.body ?? Readable.from([]), LIMITS.lutBytes);
  return Response.json(await takeLut(space, received), { status: 201 });
});
