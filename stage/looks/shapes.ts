import type { DrawnStep } from '../protocol.ts';
import { grains, share, type Value } from './values.ts';

/** A whole number that tells one particle's shape from another's, where each has its own. */
const ownWay = (step: DrawnStep) => (step.choices['varied'] === true ? 'int(drawnAt(lot, 7001u) * 4096.0)' : '0');

/** What jagged shapes share: straight pieces between lots, the way of a bolt, and a line of a width and a softness. */
export const SHAPE_TOOLS = /* glsl */ `
  float jagAt(float x, int way) {
    float cell = floor(x);
    return mix(hash3(ivec3(int(cell), way, 3)).x, hash3(ivec3(int(cell) + 1, way, 3)).x, x - cell) - 0.5;
  }
  // How far beside the middle a bolt runs, −1 to 1, at a share of its way.
  float boltAt(float y, float jags, int way) {
    float free = min(1.0, 5.0 * min(y, 1.0 - y));
    return (jagAt(y * jags, way) * 0.9 + jagAt(y * jags * 3.1, way + 7) * 0.25) * free;
  }
  // Never thinner than a pixel: what is thinner is fainter.
  float lineAt(float off, float half_wide, float soft, float pixel) {
    float drawn_wide = max(half_wide, pixel * 0.7);
    float hard = 1.0 - smoothstep(drawn_wide * (1.0 - max(0.15, min(1.0, pixel * 1.5 / drawn_wide))), drawn_wide, off);
    float glow = exp(-off * off / (drawn_wide * drawn_wide) * 1.6);
    return mix(hard, glow, soft) * min(1.0, half_wide / drawn_wide);
  }`;

/** What each drawn shape covers; `q` runs from −1 to 1, `d` is the distance from the middle, `soft` and `width` are shares. */
export const SHAPES: Record<string, (step: DrawnStep, value: Value) => string> = {
  'soft dot': () => `
    float s = max(0.0, 1.0 - d * d);
    m = pow(s, 0.35 + 5.3 * soft) * mix(1.0, 0.3 + 0.7 * exp(-d * d * 9.0), min(1.0, soft * 2.0));`,
  // Soft toward both sides, and the same all along: for ribbons.
  band: () => `
    float s = max(0.0, 1.0 - q.x * q.x);
    m = pow(s, 0.35 + 5.3 * soft) * mix(1.0, 0.3 + 0.7 * exp(-q.x * q.x * 9.0), min(1.0, soft * 2.0));`,
  disc: () => `m = 1.0 - smoothstep(1.0 - max(soft * soft, fine), 1.0, d);`,
  ring: () => `
    float off = abs(d - (1.0 - width * 0.5)) / (width * 0.5);
    m = (1.0 - smoothstep(1.0 - max(soft, fine / width), 1.0, off)) + soft * 0.25 * exp(-pow((d - 1.0 + width * 1.6) / width, 2.0));
    m *= 1.0 - smoothstep(1.0 - fine, 1.0, d);`,
  streak: () => `
    float thin = max(width * (1.0 - 0.85 * q.y * q.y), 1e-4);
    float x = abs(q.x) / thin;
    m = mix(1.0 - smoothstep(1.0 - max(fine / thin, 0.05), 1.0, x), exp(-x * x * 2.5), soft) * pow(max(0.0, 1.0 - q.y * q.y), 0.5 + 3.0 * soft);`,
  flare: () => `
    vec2 b = abs(q);
    float thin = 3.12 / max(width, 1e-3);
    float rays = exp(-b.x * thin) * exp(-b.y * 2.6) + exp(-b.y * thin) * exp(-b.x * 2.6);
    m = pow(max(0.0, 1.0 - d), 4.0) * (0.7 + 3.0 * soft) + rays * smoothstep(1.0, 0.3, d) * 0.8 + exp(-d * d * 60.0) * 1.5;`,
  star: (_, value) => `
    float turn = atan(q.x, q.y) * max(2.0, floor(${value('points')} + 0.5)) / 6.2831853;
    float tip = 1.0 - 2.0 * abs(fract(turn + 0.5) - 0.5);
    float reach = 1.0 / mix(1.0 / max(width, 0.02), 1.0, tip * tip);
    m = 1.0 - smoothstep(reach * (1.0 - max(soft, fine / reach)), reach, d);`,
  // Lines of a width from corner to corner, the outermost as far out as it goes.
  polygon: (_, value) => `
    float sector = 6.2831853 / max(3.0, floor(${value('points')} + 0.5));
    float reach = cos(sector * 0.5) / cos(mod(atan(q.x, q.y), sector) - sector * 0.5);
    float out_to = d / max(reach, 1e-4), edge = max(soft * width * 0.5, fine / max(reach, 1e-4));
    m = (1.0 - smoothstep(1.0 - edge, 1.0, out_to)) * (width > 0.999 ? 1.0 : smoothstep(1.0 - width, 1.0 - width + edge, out_to));`,
  'star polygon': (_, value) => `
    int corners = int(max(3.0, floor(${value('points')} + 0.5)));
    float skips = clamp(floor(${value('skips')} + 0.5), 1.0, floor(float(corners - 1) * 0.5)), half_wide = width * 0.5;
    float far = 1.0 - half_wide, turn = 3.14159265 / float(corners), off = far * cos(skips * turn), reach = far * sin(skips * turn);
    float nearest = 9.0;
    for (int n = 0; n < 32; n++) {
      if (n >= corners) break;
      float at = (2.0 * float(n) + skips) * turn;
      vec2 out_of = vec2(sin(at), cos(at));
      nearest = min(nearest, length(vec2(dot(q, out_of) - off, max(0.0, abs(dot(q, vec2(out_of.y, -out_of.x))) - reach))));
    }
    m = 1.0 - smoothstep(half_wide * (1.0 - max(soft, min(1.0, 1.5 * pixel / half_wide))), half_wide, nearest);`,
  spiral: (_, value) => `
    float arms = max(1.0, floor(${value('points')} + 0.5));
    float off = abs(fract(atan(q.x, q.y) / 6.2831853 * arms - d * ${value('turns')} * arms) - 0.5) * 2.0;
    float blur = max(soft * width, min(1.0, pixel * arms * (0.6 / max(d, 0.02) + 2.0 * abs(${value('turns')}))));
    m = (1.0 - smoothstep(max(0.0, width - blur), width + blur * 0.02 + 1e-4, off)) * (1.0 - smoothstep(1.0 - max(0.25 * soft, fine), 1.0, d));`,
  'ring of marks': (_, value) => `
    float marks = max(2.0, floor(${value('points')} + 0.5)), filled = 1.0 - ${share(value, 'gap')};
    float along = abs(fract(atan(q.x, q.y) / 6.2831853 * marks + 0.5) - 0.5) * 2.0;
    float across = abs(d - (1.0 - width * 0.5)) / (width * 0.5);
    float blur = max(soft, min(1.0, fine / width)), blur_along = max(soft * filled, min(1.0, fine * marks / (3.14159265 * max(d, 0.05))));
    m = (1.0 - smoothstep(1.0 - blur, 1.0, across)) * (1.0 - smoothstep(max(0.0, filled - blur_along), filled + 1e-4, along));`,
  // Side by side, each as long and as bent as its lot says.
  strokes: (step, value) => `
    int strokes = int(max(2.0, floor(${value('points')} + 0.5)));
    float wide = width * 2.0 / float(strokes);
    for (int n = 0; n < 32; n++) {
      if (n >= strokes) break;
      vec3 lots = hash3(ivec3(n, ${ownWay(step)}, 11));
      float reach = 0.6 + 0.4 * lots.x, y = (q.y - (lots.y - 0.5) * (1.0 - reach) * 1.6) / reach;
      float middle = ((float(n) + 0.5) / float(strokes) * 2.0 - 1.0) * 0.8 + (lots.z - 0.5) * 0.5 / float(strokes) + 0.08 * y * y;
      float half_wide = max(wide * max(0.0, 1.0 - y * y) * 0.5, 1e-4), off = abs(q.x - middle) / half_wide;
      float blur = max(soft, min(1.0, pixel * 1.5 / half_wide));
      m = max(m, (1.0 - smoothstep(1.0 - blur, 1.0, off)) * step(abs(y), 1.0) * min(1.0, half_wide / (0.7 * pixel)));
    }`,
  'gradient bar': () => `
    float off = abs(q.x) / width, blur = max(soft, min(1.0, pixel * 1.5 / width));
    m = (1.0 - smoothstep(1.0 - blur, 1.0, off)) * clamp(q.y * 0.5 + 0.5, 0.0, 1.0) * step(abs(q.y), 1.0);`,
  // From the upper edge to the lower, with branches that leave it downward.
  bolt: (step, value) => `
    int way = ${ownWay(step)} * 97 + int(floor(age * ${value('struck')} * 0.99999)) * 13, branches = int(floor(${value('points')} + 0.5));
    float jags = ${value('jags')}, y = 0.5 - 0.5 * q.y;
    float half_wide = max(width * 0.5 * (0.35 + 0.65 * (1.0 - y)), 1e-4);
    m = lineAt(abs(q.x - boltAt(y, jags, way)), half_wide, soft, pixel) * step(abs(q.y), 1.0);
    for (int n = 0; n < 32; n++) {
      if (n >= branches) break;
      vec3 lots = hash3(ivec3(n, way, 5));
      float from = 0.08 + 0.72 * lots.x, reach = 0.15 + 0.3 * lots.y, gone = (y - from) / reach;
      float lean = (lots.z < 0.5 ? -1.0 : 1.0) * (0.5 + fract(lots.z * 2.0) * 0.9);
      float at = boltAt(from, jags, way) + (y - from) * lean + jagAt(y * jags * 1.7, way + n + 1) * 0.22 * clamp(gone, 0.0, 1.0);
      float thin = max(half_wide * 0.6 * (1.0 - gone), 1e-4);
      m = max(m, lineAt(abs(q.x - at), thin, soft, pixel) * 0.85 * step(0.0, gone) * step(gone, 1.0));
    }`,
  // From the middle outward, each with a branch, thinner the further out.
  crack: (step, value) => `
    int way = ${ownWay(step)}, cracks = int(max(2.0, floor(${value('points')} + 0.5)));
    float jags = ${value('jags')} * 0.5, around = atan(q.x, q.y);
    for (int n = 0; n < 32; n++) {
      if (n >= cracks) break;
      vec3 lots = hash3(ivec3(n, way, 23));
      float reach = 0.55 + 0.45 * lots.x, gone = d / reach;
      float at = (float(n) + 0.7 * (lots.y - 0.5)) * 6.2831853 / float(cracks) + jagAt(d * jags, way * 31 + n) * min(d * 3.0, 1.0) * 0.7;
      float from = 0.2 + 0.3 * lots.z, lean = (lots.z < 0.25 ? -1.0 : 1.0) * 0.9, half_wide = max(width * 0.5 * (1.0 - gone), 1e-4);
      float off = abs(fract((around - at) / 6.2831853 + 0.5) - 0.5) * 6.2831853 * d;
      float side = at + lean * max(0.0, d - from), beside = abs(fract((around - side) / 6.2831853 + 0.5) - 0.5) * 6.2831853 * d;
      m = max(m, lineAt(off, half_wide, soft, pixel) * step(gone, 1.0));
      m = max(m, lineAt(beside, half_wide * 0.6, soft, pixel) * step(gone, 0.95) * step(from, d));
    }`,
  cells: (step, value) =>
    `m = smoothstep(0.5 - max(0.02, soft) * 0.5, 0.5 + max(0.02, soft) * 0.5, cells(${grains(step, value)}));`,
  clouds: (step, value) =>
    `m = smoothstep(0.5 - max(0.02, soft) * 0.6, 0.5 + max(0.02, soft) * 0.6, clouds(${grains(step, value)}));`,
};
