import { join } from 'node:path';
import { seedDemo } from '@/server/seed';
import { dataDirectory, openWorkspace } from '@/server/workspace';

const space = openWorkspace(dataDirectory());
const added = await seedDemo(space, join(process.cwd(), 'demo'));
console.log(added.length > 0 ? `Demo scenes added: ${added.join(', ')}.` : 'The demo scenes are in already.');
