export { run } from './run';
export { dress } from './dress';
export { compact, dying } from './dying';
