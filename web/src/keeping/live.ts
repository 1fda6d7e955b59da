import type { Following } from '../api';
import { thisWindow } from './thisWindow';

/** Somebody else who has the effect open. */
export interface Other {
  readonly window: string;
  /** Empty where nobody signs in. */
  readonly name: string;
}

type Told =
  | { readonly kind: 'people'; readonly others: readonly Other[] }
  | { readonly kind: 'edit'; readonly revision: number }
  | ({ readonly kind: 'following' } & Following);

/** The code by which the server closes a socket whose owner may no longer watch. */
const FORBIDDEN = 4403;
const FIRST_RETRY_MILLISECONDS = 1000;
const LAST_RETRY_MILLISECONDS = 10_000;

export interface Listener {
  readonly people: (others: readonly Other[]) => void;
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
      const told = JSON.parse(String(data)) as Told;
      if (told.kind === 'people') people(told.others);
      else if (told.kind === 'edit') edit(told.revision);
      else following({ waiting: told.waiting, failed: told.failed });
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
