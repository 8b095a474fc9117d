import { Readable } from 'node:stream';
import { endpoint } from '@/server/http/endpoint';
import { fileStem } from '@/server/output/file-names';
import { writeSceneFile } from '@/server/scenes/scene-file';
import { openScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

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
