import uFuzzy from '@leeoniya/ufuzzy';

/** Something that can be found by words: what it is called, then what it is also looked for by. */
export interface Findable {
  readonly text: string;
  readonly otherWords?: readonly string[] | undefined;
}

const LETTERS = { interSplit: "[^A-Za-z0-9À-ÿ°%']+", intraChars: "[a-zà-ÿ0-9°%']" };
/** Terms as they are written, at the beginnings of words. */
const WRITTEN = new uFuzzy({ ...LETTERS, intraMode: 0, interLft: 1 });
const ONE_WRONG = {
  intraSlice: [0, Infinity] as [number, number],
  intraIns: 1,
  intraSub: 1,
  intraTrn: 1,
  intraDel: 1,
} as const;
const NONE_WRONG = { ...ONE_WRONG, intraIns: 0, intraSub: 0, intraTrn: 0, intraDel: 0 } as const;
/** Terms with one letter wrong, missing, too many, or two exchanged, however short they are. */
const MISTYPED = new uFuzzy({
  ...LETTERS,
  intraMode: 1,
  ...ONE_WRONG,
  intraRules: (term) => (term.length > 1 ? ONE_WRONG : NONE_WRONG),
  interLft: 1,
});
/** Terms anywhere within words. */
const WITHIN = new uFuzzy({ ...LETTERS, intraMode: 0 });
/** Most words of a query that may stand in another order. */
const OUT_OF_ORDER = 4;

/** Finds things by what they are called or by other words, with one letter mistyped in each word. */
export class Finder<T extends Findable> {
  readonly #items: readonly T[];
  readonly #phrases: string[] = [];
  /** Of each phrase the item, and whether it is what the item is called. */
  readonly #of: { readonly item: number; readonly isOwn: boolean }[] = [];

  constructor(items: readonly T[]) {
    this.#items = items;
    items.forEach(({ text, otherWords = [] }, item) => {
      for (const [n, phrase] of [text, ...otherWords].entries()) {
        this.#phrases.push(phrase.toLowerCase());
        this.#of.push({ item, isOwn: n === 0 });
      }
    });
  }

  /** The items that a query means, the likeliest first; all of them for an empty one. */
  find(query: string, most = Infinity): T[] {
    const sought = query.trim().toLowerCase();
    if (sought === '') return this.#items.slice(0, most);
    const found = new Set<number>();
    for (const way of [WRITTEN, MISTYPED, WITHIN]) {
      for (const item of this.#ranked(way, sought)) found.add(item);
      if (found.size >= most) break;
    }
    return [...found].slice(0, most).map((item) => this.#items[item]!);
  }

  /** The items that a query means as it is written, without a letter wrong. */
  written(query: string): ReadonlySet<T> {
    const sought = query.trim().toLowerCase();
    const found = [WRITTEN, WITHIN].flatMap((way) => this.#ranked(way, sought));
    return new Set(found.map((item) => this.#items[item]!));
  }

  /** Items by one way of matching: whole phrases first, then phrases that begin so, then by how little else they hold. */
  #ranked(way: uFuzzy, sought: string): number[] {
    const matched = way.filter(this.#phrases, sought) ?? [];
    const all = matched.length > 0 ? matched : (way.search(this.#phrases, sought, OUT_OF_ORDER, 0)[0] ?? []);
    const rank = (phrase: number): readonly number[] => {
      const text = this.#phrases[phrase]!;
      const more = Math.abs(text.length - sought.length);
      return [
        text === sought ? 0 : 1,
        text.startsWith(sought) ? 0 : 1,
        more <= 1 ? 0 : 1,
        this.#of[phrase]!.isOwn ? 0 : 1,
        more,
        this.#of[phrase]!.item,
      ];
    };
    return [...all]
      .map((phrase) => ({ phrase, ranks: rank(phrase) }))
      .sort((a, b) => {
        const at = a.ranks.findIndex((value, n) => value !== b.ranks[n]);
        return at < 0 ? 0 : a.ranks[at]! - b.ranks[at]!;
      })
      .map(({ phrase }) => this.#of[phrase]!.item);
  }
}
