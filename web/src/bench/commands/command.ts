/** Something that can be done on the bench, wherever its control is. */
export interface Command {
  readonly id: string;
  /** What it does. */
  readonly label: string;
  /** What it is also looked for by. */
  readonly otherWords: readonly string[];
  /** The keys it has, as in "ctrl+z"; none for one that has only its control. */
  readonly key: string | readonly string[] | null;
  /** Whether its key acts also while something is being typed. */
  readonly whileTyping?: boolean;
  readonly run: () => void;
}
