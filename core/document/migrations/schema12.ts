import { fill, inEachEffect, itemsOf, loose, type Literals, type Loose } from './loose.ts';

/** What steps of looks got: all had multiplied what was there, and drawn shapes had been white. */
const OF_STEPS: Readonly<Record<string, Literals>> = {
  drawn: { combines: 'multiply', colour: { hex: '#ffffff' }, skips: 2, turns: 1.5, gap: 50, jags: 7, struck: 4 },
  picture: { combines: 'multiply' },
};
const fillSteps = (steps: unknown): void =>
  itemsOf(steps).forEach((step) => fill(step, OF_STEPS[step['kind'] as string]));

/** Fronts had freed what was within them. */
const OF_FRONTS: Literals = { frees: 'within', band: 0.1 };
/** Surfaces had been smooth. */
const OF_SURFACES: Literals = { roughness: 0 };

function change(effect: Loose): void {
  effect['schema'] = 12;
  for (const look of itemsOf(effect['looks'])) fillSteps(look['steps']);
  itemsOf(effect['fronts']).forEach((front) => fill(front, OF_FRONTS));
  itemsOf(effect['surfaces']).forEach((surface) => fill(surface, OF_SURFACES));
  for (const layer of itemsOf(effect['layers'])) {
    fillSteps(loose(layer['look'])['steps']);
    // What haze had as its look was not shown.
    if (loose(layer['drawn'])['kind'] === 'haze') layer['look'] = { kind: 'own', steps: { order: [], byId: {} } };
  }
}

/**
 * Schema 12: drawn shapes and pictures of a look combine by a choice, haze is drawn through a look, fronts free within,
 * beyond or in a band, and surfaces are rough.
 */
export const toSchema12 = (document: Loose): Loose => inEachEffect(document, change);
