import { createEstimator, type Estimator } from './estimate-output';
import { createOutputJobs, type OutputJobs } from './output-jobs';
import { serverRenderer } from './render-service';
import { workspace } from '../assets/workspace';

const shared = globalThis as { sundewOutputs?: OutputJobs; sundewEstimator?: Estimator };

/** The running server's outputs. */
export function outputs(): OutputJobs {
  return (shared.sundewOutputs ??= createOutputJobs(workspace(), serverRenderer()));
}

/** What tells how large they will be. */
export function estimator(): Estimator {
  return (shared.sundewEstimator ??= createEstimator(serverRenderer()));
}
