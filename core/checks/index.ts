export * from './findings.ts';
export * from './lifeSamples.ts';
