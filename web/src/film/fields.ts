import type { FilmSettings } from '@jinx/core/formats';
import type { InjectionKey, Ref } from 'vue';

/** What the fields of a form about pictures show, and what they change of it. */
export interface FilmForm {
  readonly settings: Readonly<Ref<FilmSettings>>;
  readonly change: (part: Partial<FilmSettings>) => void;
}
export const FILM_FORM: InjectionKey<FilmForm> = Symbol('film form');

/** Settings that are of one type. */
export type OfType<T> = { [K in keyof FilmSettings]: FilmSettings[K] extends T ? K : never }[keyof FilmSettings];
