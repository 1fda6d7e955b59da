import { STEP_SETTINGS, type ChoiceDeclaration } from '@jinx/core/document';

type Pictured = 'source' | 'shape' | 'step';

/** The small picture of something that is chosen by its looks; `scripts/pictures/choices.ts` makes them. */
export const choicePicture = (of: Pictured, value: string): string =>
  `/choices/${of}-${value.replaceAll(' ', '-')}.webp`;

/** The same of a choice of a setting, where that has pictures. */
export const settingPicture = (declaration: ChoiceDeclaration, value: string): string | undefined =>
  declaration === STEP_SETTINGS.drawn.shape ? choicePicture('shape', value) : undefined;
