// Every shape that particles are born on, under the name that documents know it by.
import { box } from './box.ts';
import { cone } from './cone.ts';
import { cylinder } from './cylinder.ts';
import { disc } from './disc.ts';
import { line } from './line.ts';
import { point } from './point.ts';
import { ring } from './ring.ts';
import { sphere } from './sphere.ts';

/** In the order in which they are offered. */
export const SHAPES = { point, line, ring, disc, box, sphere, cylinder, cone };
