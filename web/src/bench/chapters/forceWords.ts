import {
  FORCE_SETTINGS,
  SAME_EVERYWHERE,
  type Declaration,
  type Force,
  type ForceKind,
  settingsByName,
} from '@jinx/core/document';

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

const SENTENCES: Record<ForceKind, string> = {
  gravity: 'Pulled down by {strength}',
  wind: 'Carried by a wind of {speed} toward {axis}, taking up {strength} of the difference',
  drag: 'Slowed by {strength}, and by {air} of air',
  attraction: 'Drawn to {toward} at {@} by {strength}',
  vortex: 'Turned round {@} on the axis {axis} by {strength}, pulled in by {pull}, lifted by {lift}',
  orbit: 'Held {distance} from an {about} at {@}, {axis}, going round at {speed}, with a grip of {grip}',
  curl: 'Stirred by swirls of {size}, {strength} strong, changing {change}, drifting by {drift}',
  jitter: 'Shaken by {strength}, another way {change}',
  push: 'Pushed from {@} by a shell of {strength}, leaving at {start}, spreading at {speed}, {width} thick',
  limit: 'Kept below {fastest}, with a grip of {grip}',
  velocity: 'Moved beside their own speed by {x} along x, {y} along y, {z} along z',
  displacement: 'Moved over age by {x} along x, {y} along y, {z} along z',
};

/** Kinds whose place matters only to their reach. */
const PLACE_ONLY_FOR_REACH: readonly ForceKind[] = [...SAME_EVERYWHERE, 'wind', 'velocity'];

const isFixedAt = (force: Force, name: string, value: unknown): boolean => {
  const base = settingsByName(force)[name]?.base;
  return base?.kind === 'fixed' && base.value === value;
};

/** What a force does, as a sentence of pieces; what is not in use is left out. */
export function forceSentence(force: Force): Piece[] {
  const { kind } = force;
  let sentence = SENTENCES[kind];
  if (kind === 'attraction' && isFixedAt(force, 'toward', 'line'))
    sentence = 'Drawn to {toward} of {length} along {axis} at {@} by {strength}';
  if (kind === 'attraction' && isFixedAt(force, 'toward', 'skin'))
    sentence = 'Drawn to {toward} what {@} stands on by {strength}';
  if (kind === 'attraction' && isFixedAt(force, 'toward', 'own spot')) sentence = 'Drawn to {toward} by {strength}';
  if (kind === 'orbit' && isFixedAt(force, 'about', 'point'))
    sentence = 'Held {distance} from a {about} at {@}, with a grip of {grip}';
  return pieces(sentence);
}

/** On whom and where it acts: a second sentence, for it is the same for every kind. */
export function whereSentence(force: Force): Piece[] {
  const table = FORCE_SETTINGS[force.kind] as Record<string, Declaration>;
  const hasReach = 'reach' in table;
  const around = PLACE_ONLY_FOR_REACH.includes(force.kind) && !isFixedAt(force, 'reach', 0) ? ' of {@}' : '';
  const falloff = hasReach && !isFixedAt(force, 'reach', 0) ? ', fading {falloff}' : '';
  const pushing =
    'threshold' in table
      ? `, where it pushes with {threshold}${isFixedAt(force, 'threshold', 0) ? '' : ' or more'}`
      : '';
  return pieces(`On {share} of them${hasReach ? `, within {reach}${around}${falloff}` : ''}${pushing}`);
}
