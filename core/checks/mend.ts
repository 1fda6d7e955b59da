import type { Effect } from '../document/index.ts';

/** Something that is wrong with a part of a layer, by the id of that part. */
export interface Problem {
  readonly id: string;
  readonly sentence: string;
  readonly mend: Mend | null;
}

/** One step that repairs what was found. */
export interface Mend {
  readonly label: string;
  readonly apply: (draft: Effect) => void;
}
