import { numbersOfShape, type Step, settingsByName, VARIED_SHAPES } from '@jinx/core/document';
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

/** How a step goes together with what was drawn before it; the first that draws has nothing before it. */
const combines = (isFirst: boolean) => (isFirst ? '' : ', {combines}');

const isNumber = (step: Step, name: string, value: number) => choiceOf(step, name) === value;

function pictureSentences(step: Step, isFirst: boolean): string[] {
  const shows = `{%} {part}, opaque by {opacity}, {reading}, with {edges} beyond its edges; {amount} of it${combines(isFirst)}`;
  const grid = 'Frames: {columns} across, {rows} down';
  if (isNumber(step, 'columns', 1) && isNumber(step, 'rows', 1)) return [shows, grid];
  const plays = {
    'over its life': 'gone through {times}',
    'by the clock': 'at {rate}',
    'by its number': 'number {frame}',
  }[String(choiceOf(step, 'plays'))];
  return [shows, `${grid}, {frames}, played {plays}, ${plays}, beginning at {first}, {blended}`];
}

/** What each number of a drawn shape says in its sentence. */
const SHAPE_WORDS: Record<string, string> = {
  softness: '{softness} soft',
  width: '{width} wide',
  skips: 'each line {skips} corners on',
  turns: 'round {turns}',
  gap: '{gap} of it gaps',
  jags: '{jags} jags long',
  struck: 'struck anew {struck} a life',
  grains: '{grains} across',
  change: 'changing {change}',
};
/** What the points of a shape are. */
const POINTS: Record<string, string> = {
  star: 'rays',
  polygon: 'corners',
  'star polygon': 'corners',
  spiral: 'arms',
  'ring of marks': 'marks',
  strokes: 'of them',
  bolt: 'branches',
  crack: 'of them',
};

function drawnSentences(step: Step, isFirst: boolean): string[] {
  const shape = String(choiceOf(step, 'shape'));
  const made = numbersOfShape(shape).map((name) =>
    name === 'points' ? `{points} ${POINTS[shape]}` : SHAPE_WORDS[name],
  );
  if (VARIED_SHAPES.includes(shape)) made.push('{varied}');
  return [`{shape}, ${made.join(', ')}; {amount} of it onto {onto}${combines(isFirst)}, {#colour}`];
}

function sentencesOf(step: Step, isFirst: boolean): string[] {
  switch (step.kind) {
    case 'picture':
      return pictureSentences(step, isFirst);
    case 'drawn':
      return drawnSentences(step, isFirst);
    case 'levels':
      return ['Of {onto}, {black} and less is none, {white} and more is all; gamma {gamma}'];
    case 'contrast':
      return ['Of {onto}, {factor} as hard about {middle}'];
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

/**
 * What a step does, as sentences of pieces; what is not in use is left out. `isFirst`: no step before it draws anything
 * that it could go together with.
 */
export const stepSentences = (step: Step, isFirst: boolean): StepPiece[][] =>
  sentencesOf(step, isFirst).map((sentence) =>
    pieces(sentence).map((piece): StepPiece => {
      if (typeof piece === 'string' || !('setting' in piece)) return piece;
      if (piece.setting === '%') return { picture: true };
      return piece.setting.startsWith('#') ? { colour: piece.setting.slice(1) } : piece;
    }),
  );
