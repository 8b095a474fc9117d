import fc from 'fast-check';

/** The same cases on every machine; PROPERTY_SEED and PROPERTY_RUNS look for others. */
fc.configureGlobal({
  seed: Number(process.env.PROPERTY_SEED ?? 1),
  numRuns: Number(process.env.PROPERTY_RUNS ?? 100),
});
