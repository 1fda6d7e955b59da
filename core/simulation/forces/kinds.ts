// Every kind of force, a line each, under the name that documents know it by.
export { attraction } from './attraction/attraction.ts';
export { curl } from './curl/curl.ts';
export { displacement } from './displacement/displacement.ts';
export { drag } from './drag/drag.ts';
export { gravity } from './gravity/gravity.ts';
export { jitter } from './jitter/jitter.ts';
export { limit } from './limit/limit.ts';
export { orbit } from './orbit/orbit.ts';
export { push } from './push/push.ts';
export { velocity } from './velocity/velocity.ts';
export { vortex } from './vortex/vortex.ts';
export { wind } from './wind/wind.ts';
