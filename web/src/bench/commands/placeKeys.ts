import type { Command, Commands } from './registry';

/** Keys that belong to a place of the bench, in the order in which they are learned: where, and what they do there. */
export const PLACE_KEYS = [
  ['arrows on the pixel', 'move it; ten times as far with Shift'],
  ['arrows on a handle', 'nudge it; Page Up, Page Down for z'],
  ['Tab', 'walk the chips of a chapter'],
  ['↑ ↓ on a chip', 'nudge it; ten times as far with Shift, a tenth with Alt'],
  ['Enter on a chip', 'type'],
  ['↑ ↓ on a row', 'choose another layer'],
  ['Alt ↑ ↓ on a row', 'move the layer'],
  ['Shift ↑ ↓ on a row', 'choose several layers; also Shift or Ctrl and a press'],
  ['Delete on a row', 'delete the layer'],
  ['Ctrl C on a row, Ctrl V', 'copy layers; put them in, also in another effect'],
  ['← → on a burst', 'move it by a step, ten with Shift; with Alt how often it comes'],
  ['D, Delete on a burst', 'copy it; take it away'],
  ['← → on a border of the time sheet', 'make a stretch longer or shorter'],
  ['← → on an end of births', 'let births begin or end at another time'],
  ['arrows on a curve’s key', 'move all that are chosen; Delete, Insert take away, add'],
  ['S, P, H, F on a curve’s key', 'smooth, sharp, held; end for end'],
  ['Ctrl A, C, V on a curve’s key', 'choose all; copy; paste, also into another line'],
  ['arrows on the filmstrip', 'light on the stage what has that age'],
  ['arrows on the stage', 'orbit'],
] as const;

const NAMES: Readonly<Record<string, string>> = { ' ': 'Space', ctrl: 'Ctrl', shift: 'Shift', alt: 'Alt' };
/** A key as it is written for people: "ctrl+shift+z" is "Ctrl Shift Z". */
export const keyName = (key: string): string =>
  key
    .split('+')
    .map((part) => NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' ');

/** What commands are about, by the beginning of their ids, in the order in which they are learned. */
const LEARNED = ['play', 'stage', 'glass', 'handle', 'tray', 'keys', 'undo', 'redo'];
function learned({ id }: Command): number {
  const at = LEARNED.indexOf(id.replace(/\..*$/, ''));
  return at < 0 ? LEARNED.length : at;
}

/** One line of the list of keys: of a command, whose key can be changed, or of a place. */
export interface KeyLine {
  readonly id: string | null;
  readonly keys: readonly string[];
  readonly what: string;
}

/** Every command and its keys, then the keys of places; with all the words that are sought. Commands without a key are listed once something is sought. */
export function keysWith(commands: Pick<Commands, 'all' | 'keysOf'>, sought: string): readonly KeyLine[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const known = [
    ...[...commands.all]
      .sort((a, b) => learned(a) - learned(b))
      .map(({ id, label, otherWords }) => ({
        ...{ id, what: label, words: otherWords.join(' ') },
        keys: commands.keysOf(id).map(keyName),
      })),
    ...PLACE_KEYS.map(([key, what]) => ({ id: null, what, words: '', keys: [key as string] })),
  ];
  return known
    .filter(({ keys, what, words: others }) =>
      words.length === 0
        ? keys.length > 0
        : words.every((word) => `${keys.join(' ')} ${what} ${others}`.toLowerCase().includes(word)),
    )
    .map(({ id, keys, what }) => ({ id, keys, what }));
}
