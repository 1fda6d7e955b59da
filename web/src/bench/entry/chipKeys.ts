import { typesInto } from './typesInto';

/** Signs with which a number begins, or a change of one. */
const NUMBER_SIGNS = /^[\d.+\-−*×/÷±(]$/;

/** What the keys of a number's chip do. */
export interface ChipActs {
  /** Opens it to be typed into, with what was typed already. */
  readonly open: (begun?: string) => void;
  /** So many steps up or down. */
  readonly nudge: (steps: number) => void;
  readonly multiply: (by: number) => void;
}

/** Carries out a key on a number's chip: typing replaces it, arrows nudge it, ] and [ double and halve it. */
export function takeChipKey(event: KeyboardEvent, { open, nudge, multiply }: ChipActs): void {
  const steps = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
  const acts: Record<string, () => void> = {
    Enter: () => open(),
    ArrowUp: () => nudge(steps),
    ArrowDown: () => nudge(-steps),
    ']': () => multiply(2),
    '[': () => multiply(0.5),
  };
  const act = event.ctrlKey || event.metaKey ? undefined : acts[event.key];
  if (act) act();
  else if (typesInto(event, NUMBER_SIGNS)) open(event.key);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
