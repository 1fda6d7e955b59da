export * from './changeWords.ts';
export { choiceWord, READS_WORDS, settingWords, switchWords, TAKEN } from './settingWords.ts';
export * from './words.ts';
