import { listScenes } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';
import { ScenesPage } from '@/ui/scenes/scenes-page';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <ScenesPage scenes={listScenes(workspace())} />;
}
