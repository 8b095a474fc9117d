// Prints what the product takes, each beside something plain that is measured in the same run: all subjects, or those that are named.
import { rm } from 'node:fs/promises';
import { benchCrowd } from './crowd';
import { benchDesk } from './desk';
import { benchGlow } from './glow';
import { benchGrowth } from './growth';
import { benchKernels } from './kernels';
import { dataDir, renderer } from './kit';
import { benchLens } from './lens';
import { benchMattes } from './mattes';
import { benchMirror } from './mirror';
import { benchOutput } from './output';
import { benchPlaced } from './placed';
import { benchPreview } from './preview';
import { benchSky } from './sky';
import { benchSwitching } from './switching';
import { benchTouch } from './touch';
import { benchWhole } from './whole';

const SUBJECTS = {
  preview: benchPreview,
  sky: benchSky,
  lens: benchLens,
  touch: benchTouch,
  glow: benchGlow,
  placed: benchPlaced,
  mirror: benchMirror,
  desk: benchDesk,
  crowd: benchCrowd,
  kernels: benchKernels,
  growth: benchGrowth,
  output: benchOutput,
  switching: benchSwitching,
  mattes: benchMattes,
  whole: benchWhole,
};

const named = process.argv.slice(2);
const unknown = named.filter((name) => !(name in SUBJECTS));
if (unknown.length > 0)
  throw new Error(
    `No subject is called ${unknown.join(', ')}; there are ${Object.keys(SUBJECTS).join(', ')}.`,
  );
for (const [name, bench] of Object.entries(SUBJECTS))
  if (named.length === 0 || named.includes(name)) await bench();
renderer.close();
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
