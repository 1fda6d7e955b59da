export { SLOW_STEP } from './cost.ts';
export * from './findings.ts';
export * from './lifeSamples.ts';
export { deadSpans, presenceOf, PRESENCE_CELLS, sheetClock, standsIn, type Presence, type Span } from './presence.ts';
export { previewOf } from './fronts.ts';
export { ACTS_WHEN } from './idle.ts';
export { whyUnseen } from './unseen.ts';
export type { Mend, Severity, Where } from './mend.ts';
export { type StageRigs } from './sources.ts';
