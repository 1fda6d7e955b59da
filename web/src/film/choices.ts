import type { FilmKind, FilmSettings } from '@jinx/core/formats';

/** What pictures are made into, with what each is good for. */
export const KIND_CHOICES: readonly { readonly value: FilmKind; readonly label: string; readonly about: string }[] = [
  { value: 'png', label: 'PNG sequence', about: 'One PNG for each picture, with how much it covers, in a zip.' },
  { value: 'exr', label: 'EXR sequence', about: 'Linear half floats before bloom and tone curve, for compositing.' },
  {
    value: 'flipbook',
    label: 'Flipbook',
    about: 'All pictures in one sheet, with a JSON that tells a game how they lie.',
  },
  { value: 'film', label: 'Film', about: 'WebM or MP4, to show and to send.' },
  { value: 'webp', label: 'Animated WebP', about: 'Plays by itself in a chat or a page.' },
];

type Choice<K extends keyof FilmSettings> = readonly {
  readonly value: FilmSettings[K] & string;
  readonly label: string;
}[];
export const SAMPLE_CHOICES = [1, 2, 3, 4].map((value) => ({
  value,
  label: value === 1 ? 'none' : `${value} × ${value}`,
}));
export const BIT_CHOICES = [8, 16].map((value) => ({ value, label: String(value) }));
export const FIGURE_CHOICES: Choice<'figure'> = [
  { value: 'drawn', label: 'drawn' },
  { value: 'hides', label: 'only hides what is behind' },
  { value: 'none', label: 'left out' },
];
export const BEHIND_CHOICES: Choice<'behind'> = [
  { value: 'nothing', label: 'nothing (transparent)' },
  { value: 'surround', label: 'its surround' },
];
export const ALPHA_CHOICES: Choice<'alpha'> = [
  { value: 'straight', label: 'straight' },
  { value: 'premultiplied', label: 'premultiplied' },
];
export const CODEC_CHOICES: Choice<'codec'> = [
  { value: 'vp9', label: 'WebM, VP9' },
  { value: 'h264', label: 'MP4, H.264' },
];

/** Seconds that are left, as people say it. */
export function leftWords(seconds: number | null): string {
  if (seconds === null) return 'measuring how long it takes…';
  if (seconds < 60) return `about ${Math.max(1, Math.round(seconds))} s left`;
  const minutes = Math.round(seconds / 60);
  return `about ${minutes} ${minutes === 1 ? 'minute' : 'minutes'} left`;
}
