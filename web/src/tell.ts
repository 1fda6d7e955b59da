import { message } from 'ant-design-vue';
import { ApiError } from './api';
import { NoAnswer } from './engine/calls';

const SECONDS = 6;
const REFUSED_SECONDS = 12;

/** Shows what the server or the engine said in its own sentence. @throws whatever else it is: that is a fault. */
export function tell(error: unknown): void {
  if (error instanceof NoAnswer && error.isClosed) return;
  if (!(error instanceof ApiError || error instanceof NoAnswer)) throw error;
  void message.error(error.message, SECONDS);
}

/** Says that something was deleted, and that it is not lost yet. */
export const tellDeleted = (name: string): void =>
  void message.success(`${name} was deleted. It can be brought back for 30 days, at the foot of this page.`, SECONDS);

/** Says that the panels of the bench could not be loaded. */
export const tellNoPanels = (): void =>
  void message.error(
    'The rest of the bench could not be loaded: the server does not answer. Load the page again; nothing of your work is lost.',
    REFUSED_SECONDS,
  );

/** Tells of states that were put by and that the server will not have: they stay in this browser and are not sent again. */
export function tellRefused(refused: readonly string[]): void {
  for (const sentence of new Set(refused))
    void message.error(`A state that was put by stays in this browser alone: ${sentence}`, REFUSED_SECONDS);
}
