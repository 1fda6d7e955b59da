import { COLOUR_PARTS } from '@jinx/core/simulation';
import type { DrawnStep } from '../protocol.ts';
import { combined, type Begun } from './combine.ts';
import { SHAPES } from './shapes.ts';
import { grains, share, still, type Value } from './values.ts';

/** A colour that is the same for all as code. */
export const vec3 = (rgb: readonly [number, number, number] | undefined) =>
  `vec3(${(rgb ?? [1, 1, 1]).map((value) => value.toFixed(6)).join(', ')})`;

/** The colour of a step: the same for all, or among the numbers of a frame. */
const colourOf = (step: DrawnStep, value: Value) =>
  step.isColourRead
    ? `vec3(${COLOUR_PARTS.map((part) => value(`colour/${part}`)).join(', ')})`
    : vec3(step.colours['colour']);

/** Whether what a step draws changes with the clock, by its `grains`. */
export const readsClock = ({ kind, choices }: DrawnStep): boolean =>
  kind === 'warp' || (kind === 'drawn' && ['cells', 'clouds'].includes(String(choices['shape'])));

/** Where what is drawn lies again and again, a shape begins anew in each piece. */
function drawn(step: DrawnStep, value: Value, _: number, begun: Begun): string {
  const shape = SHAPES[String(step.choices['shape'])] ?? SHAPES['disc']!;
  return `
    vec2 q = ${begun.isScrolled ? 'fract(p)' : 'p'} * 2.0 - 1.0;
    float d = length(q), fine = min(0.5, fwidth(d) * 1.5), pixel = max(fwidth(q.x), 1e-5), m = 0.0;
    float soft = ${share(value, 'softness')}, width = ${share(value, 'width')};
    ${shape(step, value)}
    ${combined(step, begun, colourOf(step, value), 'm', share(value, 'amount'))}`;
}

/** Where within the picture a place of one frame lies: its first row is on top. */
const inFrame = (frame: string, columns: string, rows: string) =>
  `vec2((mod(${frame}, ${columns}) + cell.x) / ${columns}, (floor(${frame} / ${columns}) + 1.0 - cell.y) / ${rows})`;

function frameOf(step: DrawnStep, value: Value): string {
  const begun = `${share(value, 'first')} * frames`;
  if (step.choices['plays'] === 'by the clock') return `${begun} + ${value('rate')} * seconds`;
  if (step.choices['plays'] === 'by its number') return `${begun} + ${value('frame')}`;
  return `${begun} + age * ${value('times')} * frames * 0.99999`;
}

function picture(step: DrawnStep, value: Value, n: number, begun: Begun): string {
  if (!step.picture) return '';
  const edges = step.choices['edges'];
  const fit =
    edges === 'repeated' ? 'fract(p)' : edges === 'mirrored' ? '1.0 - abs(mod(p, 2.0) - 1.0)' : 'clamp(p, 0.0, 1.0)';
  const sample = (at: string) =>
    step.choices['reading'] === 'crisp'
      ? `texelFetch(picture${n}, ivec2(${at} * vec2(textureSize(picture${n}, 0))), 0)`
      : `textureGrad(picture${n}, ${at}, dx, dy)`;
  const part = {
    brightness: 'vec3(dot(t.rgb, vec3(0.2126, 0.7152, 0.0722)))',
    red: 'vec3(t.r)',
    green: 'vec3(t.g)',
    blue: 'vec3(t.b)',
    alpha: 'vec3(t.a)',
  }[String(step.choices['part'])];
  const opacity = { 'its alpha': 't.a', 'its brightness': 'dot(t.rgb, vec3(0.2126, 0.7152, 0.0722))' }[
    String(step.choices['opacity'])
  ];
  return `
    float columns = max(1.0, floor(${value('columns')})), rows = max(1.0, floor(${value('rows')}));
    float frames = floor(${value('frames')});
    if (frames < 1.0) frames = columns * rows;
    float number = mod(${frameOf(step, value)}, frames);
    // Half a pixel of a frame's border is kept free, so that its neighbours do not shine in.
    vec2 grid = vec2(columns, rows), half_pixel = 0.5 * grid / vec2(textureSize(picture${n}, 0));
    vec2 cell = clamp(${fit}, half_pixel, 1.0 - half_pixel);
    vec2 dx = dFdx(p) * vec2(1.0, -1.0) / grid, dy = dFdy(p) * vec2(1.0, -1.0) / grid;
    float frame = floor(number);
    vec4 t = ${sample(inFrame('frame', 'columns', 'rows'))};
    ${
      step.choices['blended'] === true
        ? `float next = mod(frame + 1.0, frames);
    vec4 after = ${sample(inFrame('next', 'columns', 'rows'))};
    t = mix(t, after, frames > 1.0 ? number - frame : 0.0);`
        : ''
    }
    ${edges === 'nothing' ? 't *= step(0.0, p.x) * step(p.x, 1.0) * step(0.0, p.y) * step(p.y, 1.0);' : ''}
    float amount = ${share(value, 'amount')};
    // Pictures are kept premultiplied, so that what is clear does not bleed in.
    t.rgb /= max(t.a, 1e-4);
    ${combined(step, begun, part ?? 't.rgb', opacity ?? '1.0', 'amount')}`;
}

function dissolve(step: DrawnStep, value: Value, n: number): string {
  const by =
    step.choices['by'] === 'cells'
      ? `1.0 - cells(${still(step, value)})`
      : step.choices['by'] === 'a picture'
        ? step.picture
          ? `dot(texture2D(picture${n}, vec2(fract(p.x), 1.0 - fract(p.y))).rgb, vec3(0.2126, 0.7152, 0.0722))`
          : '0.5'
        : `clouds(${still(step, value)})`;
  return `
    float gone = ${share(value, 'amount')}, soft = max(0.002, ${share(value, 'softness')}), wide = ${share(value, 'edge')};
    float n = clamp(${by}, 0.0, 1.0);
    // The border runs from before the first grain to past the last, its softness included.
    float border = mix(-soft, 1.0, gone);
    float left = gone <= 0.0 ? 1.0 : smoothstep(border, border + soft, n);
    float lit = gone <= 0.0 ? 0.0 : 1.0 - smoothstep(border + soft, border + soft + max(wide, 1e-4), n);
    emit += ${colourOf(step, value)} * (${value('glow')} * lit * step(1e-4, wide));
    a *= left;`;
}

function rim(step: DrawnStep, value: Value): string {
  const colour = `${colourOf(step, value)} * ${value('intensity')}`;
  const does = {
    'brightens the rim': `emit += ${colour} * r;`,
    'shows the rim only': `rgb *= ${colour}; a *= r;`,
    'hides the rim': 'a *= 1.0 - r;',
  }[String(step.choices['does'])];
  return `
    float r = pow(clamp(1.0 - abs(toward_eye), 0.0, 1.0), ${value('sharpness')});
    ${does}`;
}

const ALONG: Record<string, string> = {
  across: 'p.x',
  along: 'p.y',
  'out from the middle': 'length(p * 2.0 - 1.0)',
  brightness: 'dot(rgb, vec3(0.2126, 0.7152, 0.0722))',
};

function gradient(step: DrawnStep, value: Value, n: number): string {
  const along = String(step.choices['along']);
  const seen = `texture2D(gradient${n}, vec2(clamp(${ALONG[along]}, 0.0, 1.0) * (255.0 / 256.0) + 0.5 / 256.0, 0.5))`;
  const amount = share(value, 'amount');
  const fades = step.stops.some(({ opacity }) => opacity < 1) ? ` a *= mix(1.0, seen.a, ${amount});` : '';
  return along === 'brightness'
    ? `vec4 seen = ${seen}; rgb = mix(rgb, seen.rgb, ${amount});${fades}`
    : `vec4 seen = ${seen}; rgb *= mix(vec3(1.0), seen.rgb, ${amount});${fades}`;
}

/** The code of each kind of step: it reads and writes `p` (where the steps look), `rgb`, `a` and `emit`. */
export const STEP_CODE: Record<
  DrawnStep['kind'],
  (step: DrawnStep, value: Value, n: number, begun: Begun) => string
> = {
  picture,
  drawn,
  levels: (step, value) => {
    const level = (x: string) =>
      `pow(clamp((${x} - black) / (abs(white - black) < 1e-4 ? 1e-4 : white - black), 0.0, 1.0), 1.0 / ${value('gamma')})`;
    return `
    float black = ${share(value, 'black')}, white = ${share(value, 'white')};
    ${
      step.choices['onto'] === 'colour'
        ? `float bright = max(1e-5, max(rgb.r, max(rgb.g, rgb.b)));
    rgb *= ${level('bright')} / bright;`
        : `a = ${level('a')};`
    }`;
  },
  contrast: (step, value) => {
    const harder = (x: string) =>
      `clamp((${x} - ${share(value, 'middle')}) * ${value('factor')} + ${share(value, 'middle')}, 0.0, 1.0)`;
    return step.choices['onto'] === 'colour'
      ? `float bright = max(1e-5, max(rgb.r, max(rgb.g, rgb.b)));
    rgb *= ${harder('bright')} / bright;`
      : `a = ${harder('a')};`;
  },
  scroll: (_, value) => `
    float turn = radians(${value('turn')});
    p = mat2(cos(turn), -sin(turn), sin(turn), cos(turn)) * (p - 0.5);
    p = p * vec2(${value('repeatAcross')}, ${value('repeatAlong')}) + 0.5;
    p -= vec2(${share(value, 'offsetAcross')}, ${share(value, 'offsetAlong')}) + vec2(${value('across')}, ${value('along')}) * seconds;`,
  warp: (step, value) => `
    vec3 g = ${grains(step, value)};
    p += (vec2(clouds(g), clouds(g + 31.7)) - 0.5) * ${share(value, 'strength')};`,
  dissolve,
  rim,
  gradient,
  tint: (step, value) => `rgb *= mix(vec3(1.0), ${colourOf(step, value)}, ${share(value, 'amount')});`,
  intensity: (_, value) => `rgb *= ${value('factor')}; emit *= ${value('factor')};`,
  soft: (_, value) => `a *= smoothstep(0.0, 1.0, (behind() - eye_distance) / ${value('distance')});`,
};
