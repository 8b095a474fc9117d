import { Readable } from 'node:stream';
import { endpoint } from '@/server/endpoint';
import { fileStem } from '@/server/output-jobs';
import { writeSceneFile } from '@/server/scene-file';
import { openScene } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';

/** The scene as one file, to carry to another machine or to the command line. */
export const GET = endpoint<{ id: string }>((_request, { id }) => {
  const space = workspace();
  const { scene } = openScene(space, id);
  const headers = {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename="${fileStem(scene.title)}.sundew"`,
  };
  const file = Readable.toWeb(writeSceneFile(space.dataDir, scene));
  return new Response(file as ReadableStream<Uint8Array<ArrayBuffer>>, { headers });
});
