import { Finder } from '../pick/finder';
import { hexTyped } from '../values/colour';
import type { Act, Target, Tools } from './target';

/** Something that a line can mean, as the box offers it. */
export interface Suggestion {
  readonly id: string;
  readonly text: string;
  readonly detail: string;
  readonly help?: string | undefined;
  readonly keyName?: string | undefined;
  readonly previews: boolean;
  /** Whether it is only like what was typed: a letter differs. */
  readonly isLike: boolean;
  /** Why it cannot be taken; '' where it can. */
  readonly problem: string;
  readonly run: (tools: Tools) => void;
}

const plain = (target: Target, isLike: boolean): Suggestion => ({
  isLike,
  id: target.id,
  text: target.text,
  detail: target.detail,
  help: target.help,
  keyName: target.key,
  previews: target.previews ?? false,
  problem: '',
  run: target.run,
});

/** Most things of one name that a value is tried with. */
const MOST_TAKERS = 6;
const isSaid = (target: Target, name: string) =>
  [target.text, ...(target.otherWords ?? [])].some((phrase) => phrase.toLowerCase() === name.toLowerCase());

/** A target with the value that was typed after its name. */
function withValue(target: Target, isLike: boolean, name: string, value: string, tools: Tools): Suggestion | null {
  const shared = { ...plain(target, isLike), id: `${target.id} ${value}` };
  try {
    const act: Act = target.take!(value, tools);
    // The same done with the same is one suggestion, however the line was read.
    return { ...shared, id: `${target.id} ${act.text}`, text: act.text, previews: true, run: act.run };
  } catch (error) {
    // What is plainly meant says why it cannot be; anything else was not meant.
    return isSaid(target, name)
      ? { ...shared, text: `${target.text}: ${value}`, problem: (error as Error).message }
      : null;
  }
}

const NUMBER = /^[#\d.+\-−*×/÷±(]/;
/** Which word is the first that looks like a value; the number of words where none does. */
function firstNumber(words: readonly string[]): number {
  const at = words.findIndex((word, n) => n > 0 && NUMBER.test(word));
  return at < 0 ? words.length : at;
}
/** After how many words a value may begin, the likeliest first: where the first number stands, else as late as can be. */
function splits(words: readonly string[]): number[] {
  const number = firstNumber(words);
  const last = words.length - 1;
  const before = Array.from({ length: Math.max(0, Math.min(number, last)) }, (_, n) => Math.min(number, last) - n);
  const after = Array.from({ length: Math.max(0, last - number) }, (_, n) => number + 1 + n);
  return [...before, ...after];
}

interface Reading {
  readonly name: string;
  readonly value: string;
  /** Whether a number stands in the name. */
  readonly isLate: boolean;
}
/** Ways to read a part as a name and a value: the value after the name, before it, or a colour without a name. */
function readings(words: readonly string[]): Reading[] {
  const part = words.join(' ');
  // Letters that could be digits of a colour are words first: add, fade.
  if (!/^[\da-f]*$/i.test(part) && hexTyped(part) !== null) return [{ name: 'colour', value: part, isLate: false }];
  const [first = '', ...rest] = words;
  if (rest.length > 0 && NUMBER.test(first)) return [{ name: rest.join(' '), value: first, isLate: false }];
  return splits(words).map((count) => ({
    name: words.slice(0, count).join(' ').replace(/[:=]$/, ''),
    value: words.slice(count).join(' '),
    isLate: count > firstNumber(words),
  }));
}

const isTaken = ({ problem }: Suggestion): boolean => problem === '';

/** What one part of a line can mean, the likeliest first: names alone, and names with a value after them. */
export function suggestionsFor(part: string, finder: Finder<Target>, tools: Tools, most = 8): Suggestion[] {
  const words = part.trim().split(/\s+/).filter(Boolean);
  const byName = finder.find(part, most);
  const written = finder.written(part);
  const named = byName.map((target) => plain(target, !written.has(target)));
  const valued: (Suggestion & { readonly isSaid: boolean })[] = [];
  for (const { name, value, isLate } of readings(words)) {
    // A number within a name is tried only where nothing else was meant.
    if (isLate && valued.some(isTaken)) break;
    // What is given a value is named in full; a word that is only begun could be anything.
    const takers = finder.find(name, MOST_TAKERS).filter((target) => target.take);
    const writtenTakers = takers.length > 0 ? finder.written(name) : new Set<Target>();
    for (const target of takers) {
      const suggestion = withValue(target, !writtenTakers.has(target), name, value, tools);
      if (suggestion) valued.push({ ...suggestion, isSaid: isSaid(target, name) });
    }
  }
  const isNamed = byName.length > 0 && isSaid(byName[0]!, part.trim());
  // What is named in full goes before what is only like it.
  const inOrder = [...valued.filter(({ isSaid: said }) => said), ...valued.filter(({ isSaid: said }) => !said)];
  const all = isNamed
    ? [...named, ...valued]
    : [
        ...inOrder.filter(isTaken),
        ...named.filter(({ isLike }) => !isLike),
        ...inOrder.filter((one) => !isTaken(one)),
        ...named,
      ];
  const seen = new Set<string>();
  return all.filter(({ id }) => !seen.has(id) && seen.add(id)).slice(0, most);
}
