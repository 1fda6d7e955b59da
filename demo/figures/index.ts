import { BOGLING } from './bogling.ts';
import { makeFigure, type FigurePlan } from './glb.ts';
import { SEDGE } from './sedge.ts';
import { TALLOW } from './tallow.ts';

/** Fenlight's figures: two wardens and their foe. */
export const FIGURES: readonly FigurePlan[] = [SEDGE, TALLOW, BOGLING];
export { BOGLING, makeFigure, SEDGE, TALLOW };
