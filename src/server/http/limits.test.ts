import { readFile } from 'node:fs/promises';
import { expect, it } from 'vitest';
import { LIMITS } from './limits';

it('are those that the docs tell of', async () => {
  const text = await readFile('docs/reliability.md', 'utf8');
  const rows = [...text.matchAll(/^\| `(\w+)` +\| (\d+) +\|/gm)].map(([, name, value]) => [
    name,
    Number(value),
  ]);
  expect(Object.fromEntries(rows)).toEqual(LIMITS);
});
