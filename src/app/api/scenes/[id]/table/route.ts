import { endpoint } from '@/server/http/endpoint';
import { tableRequest } from '@/server/http/requests';
import { openScene } from '@/server/scenes/scene-repository';
import { serverRenderer } from '@/server/output/render-service';
import { writeTable } from '@/server/output/write-table';
import { workspace } from '@/server/assets/workspace';

/** A scene's night as a table of colours: its text, how far it is off, and what is not in it. */
export const GET = endpoint<{ id: string }>(async (request, { id }) => {
  const { side } = await tableRequest.validate(Object.fromEntries(new URL(request.url).searchParams));
  const space = workspace();
  const { scene } = openScene(space, id);
  return Response.json(await writeTable(space, serverRenderer(), scene, side, request.signal));
});
