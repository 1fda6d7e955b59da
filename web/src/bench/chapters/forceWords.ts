import { FORCES, settingsByName, type ChoiceSetting, type Declaration, type Force } from '@jinx/core/document';

/** A piece of a force's sentence: plain words, one of its settings, or its place. */
export type Piece = string | { readonly setting: string } | { readonly place: true };

const PLACE: Piece = { place: true };

/** A sentence in which {name} is a setting and {@} a place. */
export function pieces(sentence: string): Piece[] {
  return sentence
    .split(/(\{[^}]+\})/)
    .filter((part) => part !== '')
    .map((part): Piece => (part === '{@}' ? PLACE : part.startsWith('{') ? { setting: part.slice(1, -1) } : part));
}

const isFixedAt = (force: Force, name: string, value: unknown): boolean => {
  const base = settingsByName(force)[name]?.base;
  return base?.kind === 'fixed' && base.value === value;
};

/** What a force does, as a sentence of pieces; what is not in use is left out. */
export function forceSentence(force: Force): Piece[] {
  const { sentence } = FORCES[force.kind];
  const chosen = (name: string) => settingsByName<ChoiceSetting>(force)[name]!.base.value;
  return pieces(typeof sentence === 'string' ? sentence : sentence(chosen));
}

/** On whom and where it acts: a second sentence, for it is the same for every kind. */
export function whereSentence(force: Force): Piece[] {
  const table = FORCES[force.kind].settings as Record<string, Declaration>;
  const hasReach = 'reach' in table;
  const around = FORCES[force.kind].place !== 'always' && !isFixedAt(force, 'reach', 0) ? ' of {@}' : '';
  const falloff = hasReach && !isFixedAt(force, 'reach', 0) ? ', fading {falloff}' : '';
  const pushing =
    'threshold' in table
      ? `, where it pushes with {threshold}${isFixedAt(force, 'threshold', 0) ? '' : ' or more'}`
      : '';
  return pieces(`On {share} of them${hasReach ? `, within {reach}${around}${falloff}` : ''}${pushing}`);
}
