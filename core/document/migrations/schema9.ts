import { copyOf, itemsOf, loose, type Loose } from './loose.ts';

/** No burst and no hit was muted. */
function muteNone(effect: Loose): void {
  effect['schema'] = 9;
  for (const layer of itemsOf(effect['layers']))
    for (const each of [...itemsOf(layer['bursts']), ...itemsOf(loose(layer['source'])['hits'])])
      each['muted'] = false;
}

/** Schema 9: bursts and hits can be muted. */
export function toSchema9(document: Loose): Loose {
  const result = copyOf(document);
  muteNone(result);
  for (const group of itemsOf(result['groups'])) {
    const linked = loose(group['linked'])['effect'];
    if (linked) muteNone(loose(linked));
  }
  return result;
}
