import type { Clip, ClippedPart } from '@jinx/core/editing';
import type { Key, Step } from '@jinx/core/document';
import { shallowRef } from 'vue';

/** The step of a look that was copied last, to be pasted into any look. */
export const copiedStep = shallowRef<Step | null>(null);

/** Keys of a curve that were copied, to be put into any other. */
export const copiedKeys = shallowRef<readonly Key[]>([]);

/** A part of a layer that was copied, and what it is called; to be given to others, also of another effect. */
export type CopiedPart<K extends ClippedPart['kind'] = ClippedPart['kind']> = Clip & {
  readonly part: Extract<ClippedPart, { kind: K }>;
  readonly name: string;
};
export const copiedPart = shallowRef<CopiedPart | null>(null);

/** What was copied, if it is of a kind. */
export function copiedOf<K extends ClippedPart['kind']>(kind: K): CopiedPart<K> | null {
  const copied = copiedPart.value;
  return copied?.part.kind === kind ? (copied as CopiedPart<K>) : null;
}
