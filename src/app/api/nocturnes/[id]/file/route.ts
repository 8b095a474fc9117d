import { endpoint } from '@/server/http/endpoint';
import { writeNocturne } from '@/server/scenes/nocturne-repository';
import { slug } from '@/server/output/file-names';
import { workspace } from '@/server/assets/workspace';

/** A nocturne as a file, to carry to another installation. */
export const GET = endpoint<{ id: string }>(async (_request, { id }) => {
  const file = await writeNocturne(workspace(), id);
  const headers = {
    'content-type': 'application/json',
    'content-disposition': `attachment; filename="${slug(file.name, 'nocturne')}.nocturne"`,
  };
  return new Response(JSON.stringify(file, null, 1), { headers });
});
