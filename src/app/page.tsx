import { listScenes } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';
import { ScenesPage } from '@/ui/scenes/scenes-page';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <ScenesPage scenes={listScenes(workspace())} />;
}
