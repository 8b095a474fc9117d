import { tidy } from '@/server/tidy';
import { dataDirectory, openWorkspace } from '@/server/workspace';

const { bytes, ...files } = await tidy(openWorkspace(dataDirectory()));
const counts = Object.entries(files).map(([what, count]) => `${count} ${what}`);
console.log(`Freed ${(bytes / 2 ** 20).toFixed(1)} MB: ${counts.join(', ')}.`);
