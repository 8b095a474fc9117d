// Prints what the product takes, each beside something plain that is measured in the same run.
import { rm } from 'node:fs/promises';
import { benchDesk } from './desk';
import { benchGlow } from './glow';
import { benchKernels } from './kernels';
import { dataDir, renderer } from './kit';
import { benchLens } from './lens';
import { benchMattes } from './mattes';
import { benchMirror } from './mirror';
import { benchOutput } from './output';
import { benchPlaced } from './placed';
import { benchPreview } from './preview';
import { benchSky } from './sky';
import { benchTouch } from './touch';

await benchPreview();
await benchSky();
await benchLens();
await benchTouch();
await benchGlow();
await benchPlaced();
await benchMirror();
await benchDesk();
await benchKernels();
await benchOutput();
await benchMattes();
renderer.close();
await rm(dataDir, { recursive: true, force: true });
process.exit(0);
