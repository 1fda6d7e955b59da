import type { Chapter, Effect } from '../document/index.ts';

/** Whether something is wrong as it stands, or only looks so: it may be meant. */
export type Severity = 'wrong' | 'doubtful';

/** Where a finding is put right: a chapter of its layer, the rulers, or the page of the whole effect. */
export type Where = Chapter | 'links' | 'rulers' | 'whole';

/** Something that is wrong with a part of a layer, by the id of that part. */
export interface Problem {
  readonly id: string;
  readonly sentence: string;
  readonly mend: Mend | null;
  /** Wrong, where it is not said. */
  readonly severity?: Severity;
  readonly where?: Where;
  /** What was measured, in the unit that the sentence says. */
  readonly measure?: number;
}

/** One step that repairs what was found. */
export interface Mend {
  readonly label: string;
  readonly apply: (draft: Effect) => void;
}
