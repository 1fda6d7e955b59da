import { makeKit } from './kit.ts';

await makeKit(true);
