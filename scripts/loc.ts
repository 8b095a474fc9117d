import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** Counts code lines that are not blank, and prints the share of tests among them. */
const files = execFileSync('git', ['ls-files', '*.ts', '*.tsx', '*.mts', '*.mjs', '*.css'], {
  encoding: 'utf8',
})
  .trim()
  .split('\n');
const isTest = (file: string) => /\.test\.tsx?$|^e2e\/|^test\//.test(file);
const lines = (file: string) =>
  readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line.trim() !== '').length;
const counted = files.map((file) => ({ file, test: isTest(file), count: lines(file) }));
const sum = (items: typeof counted) => items.reduce((total, { count }) => total + count, 0);
const tests = sum(counted.filter(({ test }) => test));
const total = sum(counted);
const core = counted
  .filter(({ file, test }) => file.startsWith('src/core/') && !test)
  .map(({ count }) => count)
  .sort((a, b) => a - b);
console.log(`code lines ${total}, of which tests ${tests}: ${((100 * tests) / total).toFixed(1)} %`);
console.log(`core: ${core.length} files, median ${core[core.length >> 1]} lines, longest ${core.at(-1)}`);
