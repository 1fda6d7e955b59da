/** Every key of the bench, in the order in which they are learned: the key, and what it does. */
export const KEY_WORDS = [
  ['Space', 'play or pause'],
  [', and .', 'one step back, one step on'],
  ['L', 'let go: the hold ends'],
  ['X', 'strike what the middle of the picture shows'],
  ['C', 'clear the stage of guides and handles'],
  ['G', 'put a particle of the stage under the glass'],
  ['P', 'take a pixel of the stage apart: what made it'],
  ['arrows on the pixel', 'move it; ten times as far with Shift'],
  ['R', 'raw: without lens and air'],
  ['V', 'another view: grey values, silhouettes, ages…'],
  ['D', 'dim what is too bright to work on'],
  ['1, 2, 3', 'move, turn or size the chosen handle'],
  ['K', 'key the chosen handle at this instant'],
  ['arrows on a handle', 'nudge it; Page Up, Page Down for z'],
  ['Enter', 'frame the figure'],
  ['T', 'keep the present state in the tray, with its picture'],
  ['?', 'this list'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['Tab', 'walk the chips of a chapter'],
  ['↑ ↓ on a chip', 'nudge it; ten times as far with Shift, a tenth with Alt'],
  ['Enter on a chip', 'type'],
  ['↑ ↓ on a row', 'choose another layer'],
  ['Alt ↑ ↓ on a row', 'move the layer'],
  ['Shift ↑ ↓ on a row', 'choose several layers; also Shift or Ctrl and a press'],
  ['H, S, O on a row', 'hide, see alone, lock'],
  ['D, G, M, Delete on a row', 'copy, group, mirror, delete'],
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

/** The keys whose words have all that is sought, in whatever order. */
export function keysWith(sought: string): readonly (readonly [string, string])[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  return KEY_WORDS.filter(([key, what]) => words.every((word) => `${key} ${what}`.toLowerCase().includes(word)));
}
