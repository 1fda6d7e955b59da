import { breath } from './breath.ts';
import { cleave } from './cleave.ts';
import { dazed } from './dazed.ts';
import { knot } from './knot.ts';
import { puffs } from './puffs.ts';
import { pull } from './pull.ts';
import { seeds } from './seeds.ts';
import { sigil } from './sigil.ts';
import { wetStatic } from './static.ts';
import type { Task } from './task.ts';
import { unmaking } from './unmaking.ts';
import { ward } from './ward.ts';
import { wisp } from './wisp.ts';

/** The twelve tasks of an ordinary day. */
export const TASKS: readonly Task[] = [
  wisp,
  breath,
  dazed,
  pull,
  wetStatic,
  seeds,
  ward,
  unmaking,
  cleave,
  puffs,
  sigil,
  knot,
];
