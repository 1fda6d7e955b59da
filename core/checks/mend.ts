import type { Effect } from '../document/index.ts';

/** One step that repairs what was found. */
export interface Mend {
  readonly label: string;
  readonly apply: (draft: Effect) => void;
}
