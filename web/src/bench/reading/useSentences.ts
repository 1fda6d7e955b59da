import { listed, ownerOf, type Effect, type Id, type Layer } from '@jinx/core/document';
import { CHAPTERS, type ChapterName } from '@jinx/core/editing';
import { createPinia, getActivePinia, setActivePinia } from 'pinia';
import { createApp, inject, onBeforeUnmount, ref, shallowRef, watch, type Component, type Ref } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { ALONE, ASSETS, BRING, ENGINE, KIT } from '../bench';
import { OF_OWNER, PARTS } from '../chapters/parts';

/** A layer in the sentences of its chapters. */
export interface LayerSentences {
  readonly id: Id;
  readonly name: string;
  readonly chapters: readonly { readonly chapter: ChapterName; readonly sentences: readonly string[] }[];
}

/** What stands in a chapter and is no part of its sentences: what is pressed, pictures, and the chapter's head. */
const NOT_SAID = 'button:not(.chip), canvas, svg, input[type=color], .chapter-head';
/** What a chip that is pressed to leave something out ends with. */
const LEAVES_OUT = /\s*×\s*$/;
/** After an edit, before the sentences are made anew. */
const QUIET_MILLISECONDS = 300;

/** The sentences of a chapter as it stands on the page, each as plain text. */
export function sentencesIn(chapter: HTMLElement): string[] {
  for (const part of chapter.querySelectorAll(NOT_SAID)) part.remove();
  for (const field of chapter.querySelectorAll('input')) field.replaceWith(field.value);
  // On the page, room stands about a chip, and a step's kind stands apart from its sentence.
  for (const chip of chapter.querySelectorAll('.chip'))
    chip.replaceWith(` ${chip.textContent.replace(LEAVES_OUT, '').trim()} `);
  for (const kind of chapter.querySelectorAll('.kind')) kind.append(': ');
  return [...chapter.querySelectorAll('p, li')].flatMap((each) => {
    const text = each.textContent
      .replace(/\s+/g, ' ')
      .replace(/\s+([,.;:])/g, '$1')
      .trim();
    return /\p{L}/u.test(text) ? [text] : [];
  });
}

/**
 * Every layer in the sentences that its chapters say, made by the chapters themselves on a copy that nobody sees: a layer at a
 * time, so that the page never stands still.
 */
export function useSentences(isWanted: Ref<boolean>): Ref<readonly LayerSentences[]> {
  const store = useEffectStore();
  const [engine, assets, bring, kit] = [inject(ENGINE)!, inject(ASSETS)!, inject(BRING)!, inject(KIT)!];
  const made = shallowRef<readonly LayerSentences[]>([]);
  const known = new WeakMap<Layer, { readonly around: readonly unknown[]; readonly told: LayerSentences }>();
  let timer = 0;

  function chapterOf(effect: Effect, id: Id, component: Component): string[] {
    const before = getActivePinia();
    const holder = document.createElement('div');
    const app = createApp(component);
    app.use(createPinia());
    try {
      const copy = useEffectStore();
      copy.open({
        id: store.id,
        projectId: store.projectId,
        document: effect,
        siblingOf: null,
        siblings: [],
      } as never);
      copy.choose([id]);
      app.provide(ENGINE, engine).provide(ASSETS, assets).provide(BRING, bring).provide(KIT, kit);
      app.provide(ALONE, ref(null));
      app.mount(holder);
      const sentences = sentencesIn(holder);
      app.unmount();
      return sentences;
    } finally {
      setActivePinia(before);
    }
  }
  function sentencesOf(effect: Effect, id: Id, layer: Layer): LayerSentences {
    const { palette, measures, dials, looks, fronts, surfaces, forces, stage, layers } = effect;
    const names = listed(layers)
      .map(({ item }) => item.name)
      .join('\n');
    const around = [palette, measures, dials, looks, fronts, surfaces, forces, stage, names, engine.rigs.value];
    const last = known.get(layer);
    if (last && last.around.every((part, n) => part === around[n])) return last.told;
    const isOwn = ownerOf(effect, id) === id;
    const chapters = CHAPTERS.filter((chapter) => isOwn || !OF_OWNER.has(chapter)).map((chapter) => ({
      chapter,
      sentences: chapterOf(effect, id, PARTS[chapter]),
    }));
    const told = { id, name: layer.name, chapters };
    known.set(layer, { around, told });
    return told;
  }
  function begin(): void {
    window.clearTimeout(timer);
    const effect = store.effect;
    if (!isWanted.value || !effect) return;
    const waiting = listed(effect.layers);
    const next: LayerSentences[] = [];
    const on = () => {
      const layer = waiting[next.length];
      if (!layer) {
        made.value = next;
        return;
      }
      next.push(sentencesOf(effect, layer.id, layer.item));
      // The first time what there is is shown as it comes.
      if (made.value.length < next.length) made.value = [...next];
      timer = window.setTimeout(on);
    };
    timer = window.setTimeout(on, made.value.length === 0 ? 0 : QUIET_MILLISECONDS);
  }
  watch([() => store.effect, isWanted, engine.rigs], begin, { immediate: true });
  onBeforeUnmount(() => window.clearTimeout(timer));
  return made;
}
