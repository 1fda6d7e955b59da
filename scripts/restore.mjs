export { restore as run } from './backup.mjs';
