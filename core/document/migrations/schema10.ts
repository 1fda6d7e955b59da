import { inEachEffect, itemsOf, loose, type Loose } from './loose.ts';

/** No light of one's own stood on a stage, and nothing on it was hidden. */
function clearStage(effect: Loose): void {
  effect['schema'] = 10;
  const stage = loose(effect['stage']);
  stage['lights'] = { order: [], byId: {} };
  for (const thing of itemsOf(stage['things'])) thing['hidden'] = false;
}

/** Schema 10: lights of one's own on the stage, and things on it that are hidden. */
export const toSchema10 = (document: Loose): Loose => inEachEffect(document, clearStage);
