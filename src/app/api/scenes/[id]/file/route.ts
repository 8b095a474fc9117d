import { endpoint } from '@/server/endpoint';
import { fileStem } from '@/server/output-jobs';
import { writeSceneFile } from '@/server/scene-file';
import { openScene } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';

/** The scene as one file, to carry to another machine or to the command line. */
export const GET = endpoint<{ id: string }>(async (_request, { id }) => {
  const space = workspace();
  const open = openScene(space, id);
  const headers = {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename="${fileStem(open.scene.title)}.sundew"`,
  };
  return new Response((await writeSceneFile(space.dataDir, open)) as Uint8Array<ArrayBuffer>, { headers });
});
