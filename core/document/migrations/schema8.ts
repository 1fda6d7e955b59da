import { emptyCollection } from '../../settings/index.ts';
import { inEachEffect, itemsOf, loose, type Loose } from './loose.ts';

/** The share of births that was tried on the stage becomes that of the high tier; all steps and layers are in every tier. */
function toTiers(effect: Loose): void {
  const stage = loose(effect['stage']);
  const { share = 100, keepsArea = true } = loose(stage['density']) as { share?: number; keepsArea?: boolean };
  delete stage['density'];
  effect['schema'] = 8;
  effect['quality'] = {
    shown: 'high',
    tiers: {
      low: { births: Math.min(share, 35), keepsArea: true, lights: 1, joints: 50 },
      middle: { births: Math.min(share, 65), keepsArea: true, lights: 3, joints: 75 },
      high: { births: share, keepsArea, lights: 16, joints: 100 },
    },
    distances: emptyCollection(),
    bounds: null,
  };
  for (const layer of itemsOf(effect['layers'])) {
    layer['quality'] = { least: 'low', thins: true };
    for (const step of itemsOf(loose(layer['look'])['steps'])) step['least'] = 'low';
  }
  for (const look of itemsOf(effect['looks'])) for (const step of itemsOf(look['steps'])) step['least'] = 'low';
}

/** Schema 8: quality tiers and steps by distance, in place of a density to be tried. */
export const toSchema8 = (document: Loose): Loose => inEachEffect(document, toTiers);
