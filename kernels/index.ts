export { mixRows } from './mix';
export { addPointLight } from './point-light';
export { nightBase } from './night';
