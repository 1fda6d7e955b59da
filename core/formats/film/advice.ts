import type { Effect } from '../../document/index.ts';
import { pictureCount, sheetLayout } from './amounts.ts';
import { MOST_PICTURES, MOST_PICTURE_SIDE, type FilmSettings } from './settings.ts';

/** What cannot be made of these settings: a sentence each, in the order of what is worst. */
export function filmProblems(settings: FilmSettings): string[] {
  const { as, width, height, supersampling, columns, padding } = settings;
  const pictures = pictureCount(settings);
  const problems: string[] = [];
  if (pictures > MOST_PICTURES)
    problems.push(
      `${pictures} pictures are too many: up to ${MOST_PICTURES} are taken. Lower the rate or the length.`,
    );
  if (Math.max(width, height) * supersampling > MOST_PICTURE_SIDE)
    problems.push(
      `Drawn ${supersampling} times as large a picture has ${width * supersampling} × ${height * supersampling} points; up to ${MOST_PICTURE_SIDE} a side can be drawn. Lower the size or the supersampling.`,
    );
  if (as === 'flipbook') {
    const sheet = sheetLayout({ pictures, width, height, columns, padding });
    if (Math.max(sheet.width, sheet.height) > MOST_PICTURE_SIDE)
      problems.push(
        `The sheet would have ${sheet.width} × ${sheet.height} points; up to ${MOST_PICTURE_SIDE} a side can be made. Take fewer or smaller pictures.`,
      );
  }
  if (as === 'film' && settings.codec === 'h264' && (width % 2 || height % 2))
    problems.push(`H.264 wants an even width and height, not ${width} × ${height}.`);
  return problems;
}

/** What to know of what is made, a sentence each. */
export function filmWarnings(effect: Effect, settings: FilmSettings): string[] {
  const { as, apart, passes, behind } = settings;
  const warnings: string[] = [];
  const layers = effect.layers.order.map((id) => effect.layers.byId[id]!).filter(({ hidden }) => !hidden);
  const names = (found: typeof layers) => found.map(({ name }) => name).join(', ');
  if (effect.dials.order.length > 0 || effect.signals.order.length > 0)
    warnings.push(
      `${as === 'flipbook' ? 'A flipbook' : 'A picture'} cannot answer a dial or a signal: they stay as they are now.`,
    );
  const bending = layers.filter(({ drawn }) => drawn.kind === 'haze');
  const multiplying = layers.filter(({ settings: set }) => set['appearance.blend'].base.value === 'multiply');
  if (behind === 'nothing') {
    if (bending.length > 0)
      warnings.push(
        `Bent air (${names(bending)}) does not recompose: ${as === 'exr' && passes ? 'how far it bends comes as a pass' : 'it is left out'}.`,
      );
    if (multiplying.length > 0)
      warnings.push(
        `What multiplies (${names(multiplying)}) does not recompose: ${as === 'exr' && passes ? 'its factor comes as a pass' : 'it darkens the effect alone'}.`,
      );
    const lights = layers.filter(({ drawn }) => drawn.kind === 'light');
    if (lights.length > 0) warnings.push(`Lights (${names(lights)}) fall on nothing that is not in the picture.`);
    if (as !== 'exr' && !apart)
      warnings.push(
        'What is added to the picture is bright without covering: lay premultiplied pictures over, or take it apart.',
      );
  }
  if (as === 'flipbook' && settings.loops && effect.stretches.hold.kind !== 'seamless')
    warnings.push('It goes round without a seam only where its hold has none: choose that for the hold first.');
  return warnings;
}
