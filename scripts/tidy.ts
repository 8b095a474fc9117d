import { tidy } from '@/server/assets/tidy';
import { dataDirectory, openWorkspace } from '@/server/assets/workspace';

const { bytes, ...files } = await tidy(openWorkspace(dataDirectory()));
const counts = Object.entries(files).map(([what, count]) => `${count} ${what}`);
console.log(`Freed ${(bytes / 2 ** 20).toFixed(1)} MB: ${counts.join(', ')}.`);
