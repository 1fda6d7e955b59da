import type { DrawnStep } from '../protocol.ts';

/** What the steps before one have done. */
export interface Begun {
  /** Whether one of them has drawn anything that this one goes together with. */
  readonly isDrawn: boolean;
  /** Whether one of them has moved where the steps after it look. */
  readonly isScrolled: boolean;
}

/** Steps that draw something by themselves, which may go together with what was drawn before in several ways. */
export const draws = ({ kind }: DrawnStep): boolean => kind === 'drawn' || kind === 'picture';

const ONTO_OPACITY: Record<string, string> = {
  // The light of both is kept; what they cover together is no more than all.
  add: 'float both = min(had + own, max(1.0, max(had, own))); rgb = (rgb * had + tone * own) / max(both, 1e-4); a = both;',
  over: 'a = own + had * max(0.0, 1.0 - own); rgb = (tone * own + rgb * had * max(0.0, 1.0 - own)) / max(a, 1e-4);',
  greater: 'a = max(had, own); rgb = max(rgb * had, tone * own) / max(a, 1e-4);',
};
const ONTO_COLOUR: Record<string, string> = {
  add: 'rgb += tone * own;',
  over: 'rgb = mix(rgb, tone, clamp(own, 0.0, 1.0));',
  greater: 'rgb = max(rgb, tone * own);',
};

/** Code that puts what a step draws, a colour and how much it covers, together with what was drawn before, by an amount. */
export function combined(
  step: DrawnStep,
  { isDrawn }: Begun,
  colour: string,
  covers: string,
  amount: string,
): string {
  const isColour = step.choices['onto'] === 'colour';
  const way = isDrawn ? (isColour ? ONTO_COLOUR : ONTO_OPACITY)[String(step.choices['combines'])] : undefined;
  if (way)
    return `
    { vec3 tone = ${colour}; float had = a, own = ${covers} * ${amount}; ${way} }`;
  return isColour
    ? `rgb *= mix(vec3(1.0), ${colour} * ${covers}, ${amount});`
    : `rgb *= mix(vec3(1.0), ${colour}, ${amount}); a *= mix(1.0, ${covers}, ${amount});`;
}
