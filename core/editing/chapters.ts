import {
  LAYER_SETTINGS,
  structuredCopy,
  type Effect,
  type Id,
  type Layer,
  type LayerSettingName,
  type Random32,
  settingsByName,
} from '../document/index.ts';
import type { ChapterName } from './chapterNames.ts';
import type { Clip, Pasted } from './clip.ts';
import { takeFromClip } from './clipParts.ts';

/** What of a chapter is no setting. */
const PARTS: Record<ChapterName, readonly (keyof Layer)[]> = {
  source: ['source', 'front'],
  births: ['births', 'bursts', 'quality'],
  motion: ['aim', 'forces'],
  life: ['channels'],
  appearance: ['drawn', 'look', 'inside'],
  links: ['links'],
};

/** Gives a layer a whole chapter of another of the same effect, in a draft. */
export function giveChapter(draft: Effect, from: Layer, toId: Id, chapter: ChapterName, random: Random32): void {
  const to = draft.layers.byId[toId]!;
  const settings = settingsByName(to);
  for (const [name, { chapter: of }] of Object.entries(LAYER_SETTINGS))
    if (of === chapter) settings[name] = structuredCopy(from.settings[name as LayerSettingName]);
  const parts = to as unknown as Record<string, unknown>;
  for (const part of PARTS[chapter]) parts[part] = structuredCopy(from[part]);
  if (to.inside === toId) to.inside = null;
  // Two links of one salt would bear the same particles.
  if (chapter === 'links') for (const link of Object.values(to.links.byId)) link.salt = random() >>> 0;
}

/** Gives layers a chapter of a copied layer, in a draft; what it refers to is matched or brought along as for whole layers. */
export function pasteChapter(
  draft: Effect,
  clip: Clip,
  chapter: ChapterName,
  layers: readonly Id[],
  random: Random32,
): Pasted {
  const own = clip.layers[0]!;
  const pasted = takeFromClip(draft, clip, random, (guest) => {
    const from = structuredCopy(draft.layers.byId[guest]!);
    for (const id of layers) giveChapter(draft, from, id, chapter, random);
    // What the copied layer had to do with itself, the one that takes its place has to do with itself.
    for (const id of layers) {
      const { links, source } = draft.layers.byId[id]!;
      for (const link of Object.values(links.byId))
        if (link.layer === guest) link.layer = draft.layers.byId[own] ? own : id;
      if ('layer' in source && source.layer === guest) source.layer = id;
    }
  });
  return { ...pasted, layers };
}
