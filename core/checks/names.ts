import { listed, type Effect } from '../document/index.ts';
import type { Problem } from './mend.ts';

/** Layers that have the same name as one before them. */
export function nameProblems(effect: Effect): Problem[] {
  const seen = new Set<string>();
  const taken = new Set(listed(effect.layers).map(({ item }) => item.name));
  return listed(effect.layers).flatMap(({ id, item }): Problem[] => {
    if (!seen.has(item.name)) {
      seen.add(item.name);
      return [];
    }
    let number = 2;
    while (taken.has(`${item.name} ${number}`)) number++;
    const name = `${item.name} ${number}`;
    return [
      {
        id: `name/${id}`,
        sentence: `Two layers are called ${item.name}.`,
        severity: 'doubtful',
        where: 'rulers',
        mend: {
          label: `Call the second one ${name}`,
          apply: (draft) => (draft.layers.byId[id]!.name = name.slice(0, 80)),
        },
      },
    ];
  });
}
