export { layDab } from './dab';
export { develop } from './develop';
export { mixRows } from './mix';
export { addBeamAir } from './beam-air';
export { addPointLights } from './point-light';
export { nightBase } from './night';
export { enlargeRows } from './enlarge';
