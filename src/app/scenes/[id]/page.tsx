import { notFound } from 'next/navigation';
import { hasScene } from '@/server/scenes/scene-repository';
import { workspace } from '@/server/assets/workspace';
import { EditorLoader } from '@/ui/editor/editor-loader';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!hasScene(workspace(), id)) notFound();
  return <EditorLoader id={id} />;
}
