export { censusOf, censusText, type Census, type CensusColumn } from './world/census.ts';
export * from './time/clock.ts';
export { dialShares } from './values/dials.ts';
export { colourReader, numberReader, numberReaders, type Numbers } from './values/layerReaders.ts';
export { CrewError, helpCrew, stopCrew, threadShares } from './run/crew.ts';
export * from './frames/frame.ts';
export { COLOUR_PARTS, isStill, lookPlan, SHOWN_SETTINGS, type LookPlan, type ValuePlace } from './looks/plan.ts';
export { Fullest } from './frames/fullest.ts';
export { whyNotMet } from './compile/drawnMesh.ts';
export { degreesOf, groupFrame, rotationInto } from './scene/groups.ts';
export { windowOf } from './time/moments.ts';
export { hungInto, newHung, type Hung } from './scene/places.ts';
export { orientationOf, ownFrames, type DrawnVector, type OwnFrames } from './scene/orientation.ts';
export {
  swirlsOf,
  type ForceHandle,
  type GuideReader,
  type GuidePiece,
  type GuideShape,
  type GuideSwirls,
  type Swirling,
} from './forces/index.ts';
export { PullRun, type Pull } from './world/pulls.ts';
export { RateIntegral } from './values/rate.ts';
export { reachBetween, type Reach } from './world/reach.ts';
export type { MeasureName } from './shapes/index.ts';
export { measureReach, type Box, type Reached } from './world/reached.ts';
export * from './values/reading.ts';
export { withGiven } from './world/given.ts';
export { newReading } from './values/reading.ts';
export { NumberReader } from './values/numberReader.ts';
export { ColourReader } from './values/colourReader.ts';
export type { TableInput } from './values/shapers.ts';
export * from './frames/tripleBuffer.ts';
export type { Announced } from './time/signals.ts';
export { SIMULATION } from './version.ts';
export { DEFAULT_BUDGET, type InstanceOptions } from './world/compiled.ts';
export type { Inputs } from './world/inputs.ts';
export type { Placed } from './scene/base.ts';
export type { Instance } from './world/instance.ts';
export { roomFor, type WorldRoom } from './world/memory.ts';
export type { Needs } from './world/needs.ts';
export {
  DEFAULT_RATE,
  needsFor,
  playAlone,
  World,
  worldFor,
  type PlayOptions,
  type WorldOptions,
} from './world/world.ts';
export { Scene } from './scene/scene.ts';
export { releasePreview, type ReleasePreview } from './world/releasePreview.ts';
