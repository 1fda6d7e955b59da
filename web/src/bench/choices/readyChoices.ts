import { READY, READY_INSTANTS } from '@jinx/core/building';
import type { PickItem } from '../pick/pick';

/** The address of the picture of a ready layer, in which its instants stand side by side; `scripts/pictures/ready.ts` makes them. */
export const readyPicture = (kind: string): string => `/ready/${kind}.webp`;

/** What a layer can be from its first instant on, each with a picture that plays while it is pointed at. */
export const readyChoices = (): PickItem[] =>
  Object.entries(READY).map(([value, text]) => ({
    value,
    text,
    strip: { address: readyPicture(value), instants: READY_INSTANTS, rest: 4 },
  }));
