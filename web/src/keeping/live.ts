import { news } from '@jinx/core/answers';
import type { Following, Present } from '../api';
import { thisWindow } from './thisWindow';

/** The code by which the server closes a socket whose owner may no longer watch. */
const FORBIDDEN = 4403;
const FIRST_RETRY_MILLISECONDS = 1000;
const LAST_RETRY_MILLISECONDS = 10_000;

export interface Listener {
  readonly people: (others: readonly Present[]) => void;
  readonly edit: (revision: number) => void;
  /** Effects that follow this one have come further. */
  readonly following: (following: Following) => void;
  /** This window may no longer watch: signed out, or taken out of the project. */
  readonly forbidden: () => void;
  /** The server answers again, after it did not. */
  readonly back: () => void;
}

/** Hears who else has an effect open, and that it was written over, as long as it is open here. Returns how to stop. */
export function listen(effectId: string, { people, edit, following, forbidden, back }: Listener): () => void {
  let socket: WebSocket;
  let timer = 0;
  let wait = FIRST_RETRY_MILLISECONDS;
  let wasLost = false;
  let isOver = false;
  const connect = () => {
    const { protocol, host } = window.location;
    const address = `${protocol === 'https:' ? 'wss' : 'ws'}://${host}/api/effects/${effectId}/live?window=${thisWindow()}`;
    socket = new WebSocket(address);
    socket.onopen = () => {
      wait = FIRST_RETRY_MILLISECONDS;
      if (wasLost) back();
      wasLost = false;
    };
    socket.onmessage = ({ data }) => {
      // News of another version of Jinx are passed over: what it answers to a question says so.
      const { data: told } = news.safeParse(JSON.parse(String(data)));
      if (!told) return;
      if (told.kind === 'people') people(told.others);
      else if (told.kind === 'edit') edit(told.revision);
      else following(told);
    };
    socket.onclose = ({ code }) => {
      if (isOver) return;
      wasLost = true;
      people([]);
      if (code === FORBIDDEN) return forbidden();
      timer = window.setTimeout(connect, wait);
      wait = Math.min(wait * 2, LAST_RETRY_MILLISECONDS);
    };
  };
  connect();
  return () => {
    isOver = true;
    window.clearTimeout(timer);
    socket.close();
  };
}
