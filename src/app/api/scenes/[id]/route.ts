import { assetPath } from '@/server/assets/asset-store';
import { endpoint } from '@/server/http/endpoint';
import { readLens } from '@/server/plates/open-plate';
import { deleteScene, openScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';

type Params = { id: string };

export const GET = endpoint<Params>(async (_request, { id }) => {
  const space = workspace();
  const open = openScene(space, id);
  const photoLens = await readLens(assetPath(space.dataDir, open.scene.plate.asset));
  return Response.json({ ...open, photoLens });
});

export const DELETE = endpoint<Params>((_request, { id }) => {
  deleteScene(workspace(), id);
  return new Response(null, { status: 204 });
});
