import { message } from 'ant-design-vue';
import { ApiError } from './api';

const SECONDS = 6;

/** Shows what the server said in its own sentence. @throws whatever is no answer of the server: that is a fault. */
export function tell(error: unknown): void {
  if (!(error instanceof ApiError)) throw error;
  void message.error(error.message, SECONDS);
}
