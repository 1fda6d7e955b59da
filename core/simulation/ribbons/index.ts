export { bindTrails, boundBeam, type BoundBeam, type BoundTrail } from './bind.ts';
export { Laying, type Trail } from './laying.ts';
export { edgesInto } from './strip.ts';
export { RibbonWriter } from './writer.ts';
