import { DocumentError } from '@jinx/core/document';
import { clipText, pasteLayers, readClip, type Clip, type Pasted } from '@jinx/core/editing';
import { useEventListener } from '@vueuse/core';
import { message } from 'ant-design-vue';
import { random32, useEffectStore } from '../../stores/effect';
import { useChapterClip } from '../chapters/useChapterClip';
import { toldOfReferences } from '../values/toldOfReferences';
import { useSettingClip } from '../values/useSettingClip';

const count = (layers: readonly string[]) => (layers.length === 1 ? 'The layer' : `${layers.length} layers`);

/** Layers through the clipboard: copied while a row has the focus, put in anywhere on the bench, also of another project. */
export function useClipboard() {
  const store = useEffectStore();
  const { pasteForceHere } = useSettingClip();
  const { paste: pasteChapter } = useChapterClip();
  const isTyping = () =>
    document.activeElement instanceof HTMLInputElement || document.activeElement instanceof HTMLTextAreaElement;
  const text = () => clipText({ layers: [...store.chosenIds], effect: store.effect! });
  const tellCopied = () =>
    void message.info(
      `${count(store.chosenIds)} copied. Ctrl V puts ${store.chosenIds.length === 1 ? 'it' : 'them'} into any effect.`,
    );

  useEventListener(window, 'copy', (event: ClipboardEvent) => {
    const isOnRow = document.activeElement?.closest('[data-kind=layer]') && document.getSelection()?.isCollapsed;
    if (!isOnRow || isTyping() || !store.effect) return;
    event.clipboardData?.setData('text/plain', text());
    event.preventDefault();
    tellCopied();
  });
  useEventListener(window, 'paste', (event: ClipboardEvent) => {
    if (isTyping() || !store.effect || event.defaultPrevented) return;
    try {
      const clip = readClip(event.clipboardData?.getData('text/plain') ?? '');
      if (!clip) return;
      event.preventDefault();
      if (clip.part) return pastePart(clip);
      const at = Math.max(0, store.effect.layers.order.indexOf(store.chosenId));
      let pasted: Pasted | null = null;
      store.change('put layers in', (draft) => {
        pasted = pasteLayers(draft, clip, at, random32);
      });
      if (!pasted) return;
      store.choose((pasted as Pasted).layers);
      void message.info(`${count((pasted as Pasted).layers)} put in. ${toldOfReferences(pasted)}`.trim(), 8);
    } catch (error) {
      const sentence = error instanceof DocumentError ? error.message : 'it cannot be read';
      void message.error(`What was copied cannot be put in: ${sentence}.`, 8);
    }
  });

  /** What is a part of a layer goes into the chosen ones; a setting only where its like has the focus. */
  function pastePart(clip: Clip): void {
    const { part } = clip;
    const name = clip.effect.layers.byId[clip.layers[0] ?? '']?.name ?? '';
    if (part?.kind === 'force') pasteForceHere({ ...clip, part, name: `a force of ${name}` });
    else if (part?.kind === 'chapter') pasteChapter({ ...clip, part, name });
    else void message.info('A setting was copied: choose the chip it shall go to, then paste it.');
  }

  /** Copies by a button. */
  async function copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(text());
      tellCopied();
    } catch {
      void message.error('The browser does not let Jinx write to the clipboard. Press Ctrl C on the row instead.', 6);
    }
  }
  return { copy };
}
