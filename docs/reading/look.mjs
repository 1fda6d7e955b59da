// A reading of the looks of the runtime contract (docs/runtime.md, "Looks"), apart from Jinx's own shaders. It says what a
// look makes of one spot of what is drawn. Jinx does the same in single precision on the graphics
// card; a test holds both against each other, pixel by pixel.
import { drawn, fract } from './maths.mjs';
import { blend, cells, clamp, clouds, luminance, modulo, smoothstep } from './noises.mjs';
import { shapeAt } from './shapes.mjs';

/** Linear light of a value 0 to 255 of sRGB. */
function linear(value) {
  const c = value / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}
const colourOf = (hex) => [1, 3, 5].map((at) => linear(parseInt(hex.slice(at, at + 2), 16)));

/** Where a pattern looks for its grains: in a piece of its own for each lot, where the step says so. */
const grainsAt = (step, p, lot, third) => [
  ...p.map((x, n) => x * step.grains + (step.varied ? drawn(lot, 7001 + n) * 64 : 0)),
  third,
];

/** A pixel of a picture: straight sRGB turned into linear colour times alpha. */
function pixelOf({ width, height, rgba }, x, y) {
  const at = (clamp(y, 0, height - 1) * width + clamp(x, 0, width - 1)) * 4;
  const alpha = rgba[at + 3] / 255;
  return [...[0, 1, 2].map((c) => linear(rgba[at + c]) * alpha), alpha];
}
/** A picture at a place, 0 to 1 from the left and from the top: the pixel there, or its four neighbours blended. */
function sampled(picture, u, v, isCrisp) {
  const [x, y] = [u * picture.width, v * picture.height];
  if (isCrisp) return pixelOf(picture, Math.floor(x), Math.floor(y));
  const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const rows = [top, top + 1].map((row) => {
    const [a, b] = [pixelOf(picture, left, row), pixelOf(picture, left + 1, row)];
    return a.map((value, c) => blend(value, b[c], x - 0.5 - left));
  });
  return rows[0].map((value, c) => blend(value, rows[1][c], y - 0.5 - top));
}

/** What the picture of a step has at p, straight: its frame, and the next one blended in. */
function pictureAt(step, p, { seconds, age }) {
  const { picture, edges } = step;
  const [columns, rows] = [step.columns, step.rows].map((count) => Math.max(1, Math.floor(count)));
  const frames = step.frames < 1 ? columns * rows : Math.floor(step.frames);
  const passed = {
    'over its life': age * step.times * frames * 0.99999,
    'by the clock': step.rate * seconds,
    'by its number': step.frame,
  }[step.plays];
  const number = modulo((step.first / 100) * frames + passed, frames);
  const fit = (x) =>
    edges === 'repeated' ? fract(x) : edges === 'mirrored' ? 1 - Math.abs(modulo(x, 2) - 1) : clamp(x);
  // Half a pixel of a frame's border is kept free, so that its neighbours do not shine in.
  const half = [(0.5 * columns) / picture.width, (0.5 * rows) / picture.height];
  const cell = p.map((x, n) => clamp(fit(x), half[n], 1 - half[n]));
  const inFrame = (frame) =>
    sampled(
      picture,
      ((frame % columns) + cell[0]) / columns,
      (Math.floor(frame / columns) + 1 - cell[1]) / rows,
      step.reading === 'crisp',
    );
  const frame = Math.floor(number);
  let seen = inFrame(frame);
  if (step.blended && frames > 1) {
    const next = inFrame((frame + 1) % frames);
    seen = seen.map((value, c) => blend(value, next[c], number - frame));
  }
  if (edges === 'nothing' && p.some((x) => x < 0 || x > 1)) seen = [0, 0, 0, 0];
  return [...seen.slice(0, 3).map((c) => c / Math.max(seen[3], 1e-4)), seen[3]];
}

/** A gradient at a place 0 to 1: straight lines between the linear colours and the opacities of its stops. */
function gradientAt(stops, at) {
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  const next = sorted.findIndex((stop) => stop.at >= at);
  const b = sorted[next < 0 ? sorted.length - 1 : next];
  const a = next > 0 ? sorted[next - 1] : b;
  const share = b.at > a.at ? clamp((at - a.at) / (b.at - a.at)) : 0;
  const [from, to] = [a, b].map(({ colour, opacity = 1 }) => [...colourOf(colour), opacity]);
  return from.map((c, n) => blend(c, to[n], share));
}

/** How far gone the grain of a dissolve is at p: what is smaller goes first. */
function grainAt(step, p, lot) {
  if (step.by === 'a picture') {
    const [r, g, b] = sampled(step.picture, fract(p[0]), 1 - fract(p[1]), false);
    return clamp(luminance([r, g, b]));
  }
  const at = grainsAt(step, p, lot, 3.7);
  return clamp(step.by === 'cells' ? 1 - cells(at) : clouds(at));
}

/** Puts what a step draws, a colour and how much it covers, together with what the steps before it have drawn. */
function combine(step, spot, colour, covers) {
  const [amount, had, own] = [step.amount / 100, spot.a, (covers * step.amount) / 100];
  const isColour = step.onto === 'colour';
  const way = spot.isDrawn ? step.combines : 'multiply';
  spot.isDrawn = true;
  const each = (of) => (spot.rgb = spot.rgb.map((c, n) => of(c, colour[n])));
  if (way === 'multiply') {
    each((c, tone) => c * blend(1, isColour ? tone * covers : tone, amount));
    if (!isColour) spot.a *= blend(1, covers, amount);
  } else if (isColour) {
    each((c, tone) =>
      way === 'add' ? c + tone * own : way === 'over' ? blend(c, tone, clamp(own)) : Math.max(c, tone * own),
    );
  } else if (way === 'greater') {
    spot.a = Math.max(had, own);
    each((c, tone) => Math.max(c * had, tone * own) / Math.max(spot.a, 1e-4));
  } else {
    const left = way === 'over' ? had * Math.max(0, 1 - own) : had;
    spot.a = way === 'over' ? own + left : Math.min(had + own, Math.max(1, had, own));
    each((c, tone) => (c * left + tone * own) / Math.max(spot.a, 1e-4));
  }
}

/** What each kind of step does to what has been made of the spot so far: p, rgb, a and emit. */
const STEPS = {
  picture(step, spot, at) {
    const [r, g, b, alpha] = pictureAt(step, spot.p, at);
    const bright = luminance([r, g, b]);
    const part = { brightness: bright, red: r, green: g, blue: b, alpha }[step.part];
    const colour = part === undefined ? [r, g, b] : [part, part, part];
    const opacity = { 'its alpha': alpha, 'its brightness': bright, nothing: 1 }[step.opacity];
    combine(step, spot, colour, opacity);
  },
  drawn(step, spot, at) {
    const q = spot.p.map((x) => (spot.isScrolled ? fract(x) : x) * 2 - 1);
    const grains = grainsAt(step, spot.p, at.lot, at.clock * step.change);
    const way = step.varied ? Math.floor(drawn(at.lot, 7001) * 4096) : 0;
    combine(step, spot, colourOf(step.colour), shapeAt(step, q, { ...at, grains, way }));
  },
  levels(step, spot) {
    const [black, white] = [step.black / 100, step.white / 100];
    const range = Math.abs(white - black) < 1e-4 ? 1e-4 : white - black;
    const level = (x) => clamp((x - black) / range) ** (1 / step.gamma);
    const bright = Math.max(1e-5, ...spot.rgb);
    if (step.onto === 'colour') spot.rgb = spot.rgb.map((c) => (c * level(bright)) / bright);
    else spot.a = level(spot.a);
  },
  contrast(step, spot) {
    const middle = step.middle / 100;
    const harder = (x) => clamp((x - middle) * step.factor + middle);
    const bright = Math.max(1e-5, ...spot.rgb);
    if (step.onto === 'colour') spot.rgb = spot.rgb.map((c) => (c * harder(bright)) / bright);
    else spot.a = harder(spot.a);
  },
  scroll(step, spot, at) {
    const turn = (step.turn * Math.PI) / 180;
    const [x, y] = spot.p.map((value) => value - 0.5);
    const turned = [Math.cos(turn) * x + Math.sin(turn) * y, Math.cos(turn) * y - Math.sin(turn) * x];
    spot.p = [
      turned[0] * step.repeatAcross + 0.5 - step.offsetAcross / 100 - step.across * at.seconds,
      turned[1] * step.repeatAlong + 0.5 - step.offsetAlong / 100 - step.along * at.seconds,
    ];
    spot.isScrolled = true;
  },
  warp(step, spot, at) {
    const g = grainsAt(step, spot.p, at.lot, at.clock * step.change);
    const beside = g.map((x) => x + 31.7);
    spot.p = spot.p.map((x, n) => x + ((clouds(n ? beside : g) - 0.5) * step.strength) / 100);
  },
  dissolve(step, spot, at) {
    const [gone, soft, wide] = [step.amount / 100, Math.max(0.002, step.softness / 100), step.edge / 100];
    if (gone <= 0) return;
    const n = grainAt(step, spot.p, at.lot);
    // The border runs from before the first grain to past the last, its softness included.
    const border = blend(-soft, 1, gone);
    const lit = wide < 1e-4 ? 0 : 1 - smoothstep(border + soft, border + soft + wide, n);
    const colour = colourOf(step.colour);
    spot.emit = spot.emit.map((c, k) => c + colour[k] * step.glow * lit);
    spot.a *= smoothstep(border, border + soft, n);
  },
  rim(step, spot, at) {
    const r = clamp(1 - Math.abs(at.cosine)) ** step.sharpness;
    const colour = colourOf(step.colour).map((c) => c * step.intensity);
    if (step.does === 'hides the rim') spot.a *= 1 - r;
    else if (step.does === 'brightens the rim') spot.emit = spot.emit.map((c, n) => c + colour[n] * r);
    else {
      spot.rgb = spot.rgb.map((c, n) => c * colour[n]);
      spot.a *= r;
    }
  },
  gradient(step, spot) {
    const along = {
      across: spot.p[0],
      along: spot.p[1],
      'out from the middle': Math.hypot(...spot.p.map((x) => x * 2 - 1)),
      brightness: luminance(spot.rgb),
    }[step.along];
    const colour = gradientAt(step.stops, clamp(along));
    const amount = step.amount / 100;
    spot.rgb = spot.rgb.map((c, n) =>
      step.along === 'brightness' ? blend(c, colour[n], amount) : c * blend(1, colour[n], amount),
    );
    spot.a *= blend(1, colour[3], amount);
  },
  tint(step, spot) {
    const colour = colourOf(step.colour);
    spot.rgb = spot.rgb.map((c, n) => c * blend(1, colour[n], step.amount / 100));
  },
  intensity(step, spot) {
    spot.rgb = spot.rgb.map((c) => c * step.factor);
    spot.emit = spot.emit.map((c) => c * step.factor);
  },
  soft(step, spot, at) {
    spot.a *= smoothstep(0, 1, at.before / step.distance);
  },
};

/**
 * What a look makes of the spot p of what is drawn, 0 to 1 across from the left and along from below: straight linear
 * colour, opacity, and light of its own. `steps` are those that act, first to last, with their numbers as they are for this
 * particle at this instant, in the units of docs/fields.md; a gradient has `stops` of a place, a colour and an opacity, a picture
 * `picture` with width, height and straight rgba of 8 bits, rows from the top.
 *
 * `at` has what else is read: `seconds` and `clock` of the effect, `age` 0 to 1, `lot`, `fine` (how far d, the distance
 * from the middle in halves, goes in a pixel and a half, at most 0.5), `pixel` (how far q goes across in a pixel), `cosine` between normal and eye, and `before`, how
 * many metres behind the spot something solid lies.
 */
export function lookAt(steps, p, at = {}) {
  const read = { seconds: 0, clock: 0, age: 0, lot: 0, fine: 0, pixel: 1e-4, cosine: 1, before: 1e4, ...at };
  const spot = { p, rgb: [1, 1, 1], a: 1, emit: [0, 0, 0], isScrolled: false, isDrawn: false };
  for (const step of steps) STEPS[step.kind](step, spot, read);
  return { rgb: spot.rgb, a: spot.a, emit: spot.emit };
}
