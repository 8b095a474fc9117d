import { notFound } from 'next/navigation';
import { AppError } from '@/server/app-error';
import { openScene } from '@/server/scene-repository';
import { workspace } from '@/server/workspace';
import { Editor } from '@/ui/editor/editor';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <Editor opened={findScene(id)} />;
}

function findScene(id: string) {
  try {
    return openScene(workspace(), id);
  } catch (error) {
    if (error instanceof AppError && error.status === 404) notFound();
    throw error;
  }
}
