import { listed, type Burst, type Effect } from '../document/index.ts';

/** A hold shorter than this is none, in seconds. */
export const LEAST_HOLD = 0.1;
export const MOST_STRETCH = 600;

/** Where something in a hold comes once there is none: as far into the closing, or where the hold was. */
function outOfHold(moment: { stretch: Burst['stretch']; at: number }, { stretches }: Effect): void {
  if (moment.stretch !== 'hold') return;
  const { opening, closing } = stretches;
  // Without a closing nothing comes after the opening: its last instant is left.
  if (closing > 0) Object.assign(moment, { stretch: 'closing', at: moment.at <= closing ? moment.at : 0 });
  else Object.assign(moment, { stretch: 'opening', at: Math.min(moment.at, Math.max(0, opening - 1 / 60)) });
}

/** How an effect plays: once through; holding until it is let go; or holding as a loop whose end is its beginning. */
export type Playing = 'once' | 'held' | 'looped';
export const playingOf = ({ stretches: { hold } }: Pick<Effect, 'stretches'>): Playing =>
  hold.kind === 'none' ? 'once' : hold.kind === 'seamless' ? 'looped' : 'held';
/** How long a hold is that is not given a length, in seconds. */
const FIRST_HOLD = 4;

/** Makes an effect play otherwise. A hold that it has keeps its length; played once it has none. */
export function setPlaying(draft: Effect, playing: Playing): void {
  const { hold } = draft.stretches;
  if (playing === 'once') return setStretch(draft, 'hold', 0);
  const seconds = hold.kind === 'none' ? FIRST_HOLD : hold.seconds;
  draft.stretches.hold = { kind: playing === 'looped' ? 'seamless' : 'continuing', seconds };
}

/** Makes a stretch so many seconds long. A hold of none goes, and what was set into it comes beside where it was. */
export function setStretch(draft: Effect, name: 'opening' | 'hold' | 'closing', seconds: number): void {
  const length = Number(Math.min(MOST_STRETCH, Math.max(0, seconds)).toFixed(4));
  const { stretches } = draft;
  if (name !== 'hold') {
    stretches[name] = length;
    return;
  }
  if (length >= LEAST_HOLD) {
    stretches.hold = { kind: stretches.hold.kind === 'seamless' ? 'seamless' : 'continuing', seconds: length };
    return;
  }
  stretches.hold = { kind: 'none' };
  for (const { item } of listed(draft.layers)) {
    for (const burst of listed(item.bursts)) outOfHold(burst.item, draft);
    if (item.source.kind === 'hits') for (const hit of listed(item.source.hits)) outOfHold(hit.item, draft);
  }
  for (const { item } of listed(draft.signals)) if (item.tried) outOfHold(item.tried, draft);
}
