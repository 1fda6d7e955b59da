// A thread does not take over how its process reads TypeScript: it is told here.
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
