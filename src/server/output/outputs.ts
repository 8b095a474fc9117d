import { createOutputJobs, type OutputJobs } from './output-jobs';
import { serverRenderer } from './render-service';
import { workspace } from '../assets/workspace';

const shared = globalThis as { sundewOutputs?: OutputJobs };

/** The running server's outputs. */
export function outputs(): OutputJobs {
  const { dataDir } = workspace();
  return (shared.sundewOutputs ??= createOutputJobs(dataDir, serverRenderer()));
}
