import { fill, inEachEffect, itemsOf, loose, type Literals, type Loose } from './loose.ts';

/** What steps of looks got: all had multiplied what was there, and drawn shapes had been white. */
const OF_STEPS: Readonly<Record<string, Literals>> = {
  drawn: { combines: 'multiply', colour: { hex: '#ffffff' }, skips: 2, turns: 1.5, gap: 50, jags: 7, struck: 4 },
  picture: { combines: 'multiply' },
};
const fillSteps = (steps: unknown): void =>
  itemsOf(steps).forEach((step) => fill(step, OF_STEPS[step['kind'] as string]));

function change(effect: Loose): void {
  effect['schema'] = 12;
  for (const look of itemsOf(effect['looks'])) fillSteps(look['steps']);
  for (const layer of itemsOf(effect['layers'])) {
    fillSteps(loose(layer['look'])['steps']);
    // What haze had as its look was not shown.
    if (loose(layer['drawn'])['kind'] === 'haze') layer['look'] = { kind: 'own', steps: { order: [], byId: {} } };
  }
}

/** Schema 12: drawn shapes and pictures of a look combine by a choice, and haze is drawn through a look. */
export const toSchema12 = (document: Loose): Loose => inEachEffect(document, change);
