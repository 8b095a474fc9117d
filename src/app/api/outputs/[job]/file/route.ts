import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { endpoint } from '@/server/http/endpoint';
import { outputs } from '@/server/output/outputs';

export const GET = endpoint<{ job: string }>(async (_request, { job }) => {
  const { path, mime, fileName } = outputs().file(job);
  const { size } = await stat(path);
  const headers = {
    'content-type': mime,
    'content-length': String(size),
    'content-disposition': `attachment; filename="${fileName}"`,
    'cache-control': 'no-store',
  };
  return new Response(Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array<ArrayBuffer>>, {
    headers,
  });
});
