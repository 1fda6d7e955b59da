import type { ChapterName } from '@jinx/core/editing';
import type { Component } from 'vue';
import AppearanceChapter from './AppearanceChapter.vue';
import BirthsChapter from './BirthsChapter.vue';
import LifeChapter from './LifeChapter.vue';
import LinksChapter from './LinksChapter.vue';
import MotionChapter from './MotionChapter.vue';
import SourceChapter from './SourceChapter.vue';

/** What each chapter of a layer is made of. */
export const PARTS: Readonly<Record<ChapterName, Component>> = {
  source: SourceChapter,
  births: BirthsChapter,
  motion: MotionChapter,
  life: LifeChapter,
  appearance: AppearanceChapter,
  links: LinksChapter,
};

/** Chapters that a layer which follows another has from that. */
export const OF_OWNER: ReadonlySet<ChapterName> = new Set(['source', 'births', 'motion']);
