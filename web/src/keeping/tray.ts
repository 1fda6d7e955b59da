import type { Effect } from '@jinx/core/document';
import { api } from '../api';
import { outbox } from './outbox';
import { tellRefused } from '../tell';
import { sendStates } from './leftBehind';

/** Puts a state of an effect by: in this browser at once, on the server as soon as it answers. */
export async function putBy(
  effectId: string,
  document: Effect,
  name: string,
  seconds: number,
  picture: Blob | null,
): Promise<void> {
  const id = crypto.randomUUID();
  const png = picture ? await base64Of(picture) : null;
  const body = JSON.stringify({ id, name, seconds, document, picture: png });
  const isKept = await outbox.keepState({ id, effectId, body }).then(
    () => true,
    () => false,
  );
  // Where the browser keeps nothing it goes to the server or not at all, which is told.
  if (isKept) tellRefused(await sendStates());
  else await api.putBy(effectId, body);
}

async function base64Of(blob: Blob): Promise<string> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  let text = '';
  for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return btoa(text);
}
