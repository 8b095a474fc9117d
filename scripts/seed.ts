import { join } from 'node:path';
import { seedDemo } from '@/server/seed';
import { dataDirectory, openWorkspace } from '@/server/workspace';

/** Other scenes than the demo's, on its plates: those that the end-to-end tests start from. */
const [, , scenesDir] = process.argv;

const space = openWorkspace(dataDirectory());
const added = await seedDemo(space, join(process.cwd(), 'demo'), scenesDir);
console.log(added.length > 0 ? `Demo scenes added: ${added.join(', ')}.` : 'The demo scenes are in already.');
