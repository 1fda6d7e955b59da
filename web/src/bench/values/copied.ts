import type { ChapterName, Clip } from '@jinx/core/editing';
import type { Key, NumberDeclaration, NumberSetting, Step } from '@jinx/core/document';
import { shallowRef } from 'vue';

/** The step of a look that was copied last, to be pasted into any look. */
export const copiedStep = shallowRef<Step | null>(null);

/** Keys of a curve that were copied, to be put into any other. */
export const copiedKeys = shallowRef<readonly Key[]>([]);

/** A number that was copied with all that shapes it, to be given to others of its unit in the same effect. */
export const copiedSetting = shallowRef<{
  readonly effect: string;
  readonly name: string;
  readonly unit: NumberDeclaration['unit'];
  readonly setting: NumberSetting;
} | null>(null);

/** A chapter of a layer that was copied, to be given to others, also of another effect. */
export const copiedChapter = shallowRef<{
  readonly chapter: ChapterName;
  readonly layer: string;
  readonly clip: Clip;
} | null>(null);
