export { gravity } from './gravity';
export { drag } from './drag';
export { attraction } from './attraction';
export { vortex } from './vortex';
export { curl } from './curl';
export { integrate } from './integrate';
