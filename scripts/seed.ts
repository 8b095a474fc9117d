import { join } from 'node:path';
import { seedDemo } from '@/server/scenes/seed';
import { dataDirectory, openWorkspace } from '@/server/assets/workspace';

/** The folder of scenes and plates: the demo's, or that of the end-to-end tests. */
const [, , folder = 'demo'] = process.argv;

const space = openWorkspace(dataDirectory());
const added = await seedDemo(space, join(process.cwd(), folder));
console.log(added.length > 0 ? `Demo scenes added: ${added.join(', ')}.` : 'The demo scenes are in already.');
