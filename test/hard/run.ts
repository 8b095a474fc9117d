// Attacks the built application, and prints one line a figure. `--short` for a part of it that takes a minute, `--seed N` for
// another course of it, `--only NAME` for one test.
import { parseArgs } from 'node:util';
import { ownServer } from '../../e2e/support/server';
import { createFigures } from './figures';
import { fullDiskTest } from './full-disk';
import { giantTest } from './giants';
import { killTest } from './kills';
import { mutantTest } from './mutants';
import { COLORS, photoTest } from './photos';
import { createRandom } from './random';
import { soakTest } from './soak';

const { values } = parseArgs({
  options: { short: { type: 'boolean' }, seed: { type: 'string', default: '1' }, only: { type: 'string' } },
});
const PORT = Number(process.env.PORT ?? 4396);
const { short } = values;
const random = createRandom(Number(values.seed));
const figures = createFigures();
const server = await ownServer(PORT);

const tests: Record<string, () => Promise<void>> = {
  kills: () => killTest(server, short ? 2 : 60, random, figures),
  mutants: () => mutantTest(server, short ? 150 : 2000, random, figures),
  giants: () => giantTest(server, short ? 0.04 : 1, figures),
  disk: () => fullDiskTest(PORT + 1, figures),
  soak: () => soakTest(short ? 15 : 400, random, figures),
  photos: () => photoTest(server, short ? [2] : [24, 48, 100], short ? ['wide red'] : COLORS, figures),
};

console.log(`Hard tests, seed ${values.seed}\n`);
for (const [name, test] of Object.entries(tests)) {
  if (values.only !== undefined && values.only !== name) continue;
  const from = performance.now();
  await test();
  console.log(`(${name}: ${((performance.now() - from) / 1000).toFixed(0)} s)\n`);
}
console.log(figures.failures() === 0 ? 'All held.' : `${figures.failures()} figures did not hold.`);
process.exit(figures.failures() === 0 ? 0 : 1);
