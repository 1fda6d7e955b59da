import { choiceWord, type ChoiceDeclaration } from '@jinx/core/document';
import { settingPicture } from './choicePictures';

/** The choices of a setting, each with all it may be called. */
export const choicesOf = (declaration: ChoiceDeclaration) =>
  declaration.choices.map((value) => ({
    value,
    text: choiceWord(declaration, value),
    picture: settingPicture(declaration, value),
    otherWords: [value, ...(declaration.choiceOtherWords?.[value] ?? [])],
  }));
