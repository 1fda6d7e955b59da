import {
  type Effect,
  type FoundSetting,
  type Id,
  nameOfSetting,
  type NumberDeclaration,
  type NumberSetting,
  settingsOfLayer,
} from '@jinx/core/document';
import type { ChapterName } from '@jinx/core/editing';
import { chapterOf } from '../box/settingTargets';
import { spreadAbout } from '../entry/entry';
import { settingText } from '../entry/format';

/** How far numbers are loosened, as a menu has it. */
export const LOOSENED = [5, 10, 20, 40].map((percent) => ({ value: String(percent), text: `by ±${percent}% each` }));

/** Whether a setting is one number that may be a spread, and says something: what is nothing is left at nothing. */
function canBeLoosened({ declaration, setting }: FoundSetting): boolean {
  if (declaration.value !== 'number' || !declaration.bases.includes('spread')) return false;
  const { base } = setting as NumberSetting;
  return base.kind === 'fixed' && base.value !== 0;
}

/** The numbers of a chapter of a layer that can be spread. */
export const looseIn = (effect: Effect, layerId: Id, chapter: ChapterName): FoundSetting[] =>
  settingsOfLayer(effect, layerId).filter(
    (found) => chapterOf(found.address, found.declaration) === chapter && canBeLoosened(found),
  );

/** Spreads every single number of a chapter by a share of itself, within what each may be. Returns what each is now, in words. */
export function loosen(draft: Effect, layerId: Id, chapter: ChapterName, share: number): string[] {
  return looseIn(draft, layerId, chapter).map(({ address, declaration, setting }) => {
    const own = setting as NumberSetting;
    const of = declaration as NumberDeclaration;
    own.base = spreadAbout(own.base, { share }, of);
    return `${nameOfSetting(draft, address, of)} ${settingText(own, of, () => '')}`.replace(/\u00a0/g, ' ');
  });
}
