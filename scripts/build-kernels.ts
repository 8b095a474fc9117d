// Writes out what kernels share with the code that calls them, and compiles them to WebAssembly.
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { KERNEL_COUNTS, KERNEL_LAYOUT, KERNEL_NUMBERS } from '@/engine/kernels/layout';

/** A number as AssemblyScript reads it: one with a fraction keeps it. */
const float = (value: number) => (Number.isInteger(value) ? value.toFixed(1) : String(value));

const lines = [
  '/* Written by scripts/build-kernels.ts from src/engine/kernels/layout.ts. */',
  ...Object.entries(KERNEL_NUMBERS).map(([name, value]) => `export const ${name}: f32 = ${float(value)};`),
  ...Object.entries(KERNEL_COUNTS).map(([name, value]) => `export const ${name}: i32 = ${value};`),
  ...Object.entries(KERNEL_LAYOUT).flatMap(([table, places]) =>
    Object.entries(places).map(([name, value]) => `export const ${table}_${name}: usize = ${value};`),
  ),
];
writeFileSync('kernels/generated.ts', `${lines.join('\n')}\n`);

const { status } = spawnSync(
  'asc',
  [
    ...['kernels/index.ts', '-o', 'public/kernels.wasm', '-O3', '--noAssert', '--runtime', 'stub'],
    ...['--enable', 'simd', '--enable', 'threads', '--importMemory', '--sharedMemory'],
    ...['--maximumMemory', '65536', '--initialMemory', '1', '--disableWarning'],
  ],
  { stdio: 'inherit' },
);
process.exit(status ?? 1);
