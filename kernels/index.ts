export { mixRows } from './mix';
export { addBeamAir } from './beam-air';
export { addPointLight } from './point-light';
export { nightBase } from './night';
