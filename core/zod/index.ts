import { config } from 'zod';

// Pages make no code from text: their security policy forbids it, and to try costs time each time a script begins.
if (!('process' in globalThis)) config({ jitless: true });

export * from 'zod';
