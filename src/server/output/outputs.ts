import { createOutputJobs, type OutputJobs } from './output-jobs';
import { serverRenderer } from './render-service';
import { workspace } from '../assets/workspace';

const shared = globalThis as { sundewOutputs?: OutputJobs };

/** The running server's outputs. */
export function outputs(): OutputJobs {
  return (shared.sundewOutputs ??= createOutputJobs(workspace(), serverRenderer()));
}
