import { type Step, settingsByName } from '@jinx/core/document';
import { pieces, type Piece } from '../forceWords';

/** Choices whose plain value would not read as a part of the sentence. */
export const STEP_CHOICES: Record<string, Record<string, string>> = {
  part: {
    colour: 'in its colours',
    brightness: 'by brightness',
    red: 'by its red',
    green: 'by its green',
    blue: 'by its blue',
    alpha: 'by its alpha',
  },
  reading: { smooth: 'read smoothly', crisp: 'read crisply' },
  edges: { nothing: 'nothing', 'its border': 'its border', repeated: 'itself again', mirrored: 'its mirror image' },
  onto: { opacity: 'opacity', colour: 'colour' },
  varied: { yes: 'each its own', no: 'all alike' },
  blended: { yes: 'blended', no: 'one at a time' },
  does: { 'brightens the rim': 'shines', 'shows the rim only': 'is all that shows', 'hides the rim': 'is hidden' },
};

const choiceOf = (step: Step, name: string): unknown => {
  const base = settingsByName(step)[name]?.base;
  return base?.kind === 'fixed' ? base.value : undefined;
};

const isNumber = (step: Step, name: string, value: number) => choiceOf(step, name) === value;

function pictureSentences(step: Step): string[] {
  const shows = '{%} {part}, opaque by {opacity}, {reading}, with {edges} beyond its edges; {amount} of it';
  const grid = 'Frames: {columns} across, {rows} down';
  if (isNumber(step, 'columns', 1) && isNumber(step, 'rows', 1)) return [shows, grid];
  const plays = {
    'over its life': 'gone through {times}',
    'by the clock': 'at {rate}',
    'by its number': 'number {frame}',
  }[String(choiceOf(step, 'plays'))];
  return [shows, `${grid}, {frames}, played {plays}, ${plays}, beginning at {first}, {blended}`];
}

function drawnSentences(step: Step): string[] {
  const shape = String(choiceOf(step, 'shape'));
  const width = ['ring', 'streak', 'flare', 'star'].includes(shape) ? ', {width} wide' : '';
  const points = shape === 'star' ? ', with {points} rays' : '';
  const grain = ['cells', 'clouds'].includes(shape) ? ', {grains} across, changing {change}, {varied}' : '';
  return [`{shape}, {softness} soft${width}${points}${grain}; {amount} of it onto {onto}`];
}

function sentencesOf(step: Step): string[] {
  switch (step.kind) {
    case 'picture':
      return pictureSentences(step);
    case 'drawn':
      return drawnSentences(step);
    case 'levels':
      return ['Of {onto}, {black} and less is none, {white} and more is all; gamma {gamma}'];
    case 'scroll':
      return [
        'Moves what follows {across} across, {along} along',
        'Shifted {offsetAcross} across, {offsetAlong} along, repeated {repeatAcross} by {repeatAlong}, turned {turn}',
      ];
    case 'warp':
      return ['Pushes what follows to and fro by {strength}, {grains} across, changing {change}, {varied}'];
    case 'dissolve':
      return [
        `{amount} of it gone by {by}${choiceOf(step, 'by') === 'a picture' ? ' {%}' : ', {grains} across, {varied}'}, {softness} soft`,
        'The border glows {edge} wide, {glow} bright, {#colour}',
      ];
    case 'rim':
      return [
        `The rim {does}, {sharpness} sharp${choiceOf(step, 'does') === 'hides the rim' ? '' : ', {intensity} bright, {#colour}'}`,
      ];
    case 'gradient':
      return ['Over what lies {along}, {amount} of it'];
    case 'tint':
      return ['Times {#colour}, {amount} of it'];
    case 'intensity':
      return ['{factor} as bright'];
    case 'soft':
      return ['Fades within {distance} of what is solid'];
  }
}

export type StepPiece = Piece | { readonly colour: string } | { readonly picture: true };

/** What a step does, as sentences of pieces; what is not in use is left out. */
export const stepSentences = (step: Step): StepPiece[][] =>
  sentencesOf(step).map((sentence) =>
    pieces(sentence).map((piece): StepPiece => {
      if (typeof piece === 'string' || !('setting' in piece)) return piece;
      if (piece.setting === '%') return { picture: true };
      return piece.setting.startsWith('#') ? { colour: piece.setting.slice(1) } : piece;
    }),
  );
