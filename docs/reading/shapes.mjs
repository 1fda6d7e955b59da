// What each drawn shape of a look covers: docs/runtime.md, "Drawn shapes".
import { fract } from './maths.mjs';
import { blend, cells, clamp, clouds, hash3, modulo, smoothstep } from './noises.mjs';

/** Straight pieces between lots, −½ to ½. */
function jagAt(x, way) {
  const cell = Math.floor(x);
  return blend(hash3([cell, way, 3])[0], hash3([cell + 1, way, 3])[0], x - cell) - 0.5;
}
/** How far beside the middle a bolt runs at a share of its way. */
const boltWay = (y, jags, way) =>
  (jagAt(y * jags, way) * 0.9 + jagAt(y * jags * 3.1, way + 7) * 0.25) * Math.min(1, 5 * Math.min(y, 1 - y));
/** A line: never thinner than a pixel, but fainter. */
function lineAt(off, half, soft, pixel) {
  const wide = Math.max(half, pixel * 0.7);
  const hard = 1 - smoothstep(wide * (1 - Math.max(0.15, Math.min(1, (1.5 * pixel) / wide))), wide, off);
  return blend(hard, Math.exp((-1.6 * off * off) / (wide * wide)), soft) * Math.min(1, half / wide);
}

function boltAt({ width, softness, points, jags }, q, way, pixel) {
  if (Math.abs(q[1]) > 1) return 0;
  const [soft, y] = [softness / 100, 0.5 - 0.5 * q[1]];
  const half = Math.max((width / 200) * (0.35 + 0.65 * (1 - y)), 1e-4);
  let most = lineAt(Math.abs(q[0] - boltWay(y, jags, way)), half, soft, pixel);
  for (let n = 0; n < Math.floor(points + 0.5); n++) {
    const lots = hash3([n, way, 5]);
    const [from, reach] = [0.08 + 0.72 * lots[0], 0.15 + 0.3 * lots[1]];
    const gone = (y - from) / reach;
    if (gone < 0 || gone > 1) continue;
    const lean = (lots[2] < 0.5 ? -1 : 1) * (0.5 + fract(2 * lots[2]) * 0.9);
    const at = boltWay(from, jags, way) + (y - from) * lean + jagAt(y * jags * 1.7, way + n + 1) * 0.22 * clamp(gone);
    const thin = Math.max(half * 0.6 * (1 - gone), 1e-4);
    most = Math.max(most, lineAt(Math.abs(q[0] - at), thin, soft, pixel) * 0.85);
  }
  return most;
}

function crackAt({ width, softness, points, jags }, q, way, pixel) {
  const [soft, cracks] = [softness / 100, Math.max(2, Math.floor(points + 0.5))];
  const [d, turn] = [Math.hypot(...q), Math.atan2(q[0], q[1])];
  const offFrom = (at) => Math.abs(fract((turn - at) / (2 * Math.PI) + 0.5) - 0.5) * 2 * Math.PI * d;
  let most = 0;
  for (let n = 0; n < cracks; n++) {
    const lots = hash3([n, way, 23]);
    const gone = d / (0.55 + 0.45 * lots[0]);
    const jag = jagAt((d * jags) / 2, way * 31 + n) * Math.min(3 * d, 1) * 0.7;
    const at = ((n + 0.7 * (lots[1] - 0.5)) * 2 * Math.PI) / cracks + jag;
    const [from, lean] = [0.2 + 0.3 * lots[2], (lots[2] < 0.25 ? -1 : 1) * 0.9];
    const half = Math.max((width / 200) * (1 - gone), 1e-4);
    if (gone <= 1) most = Math.max(most, lineAt(offFrom(at), half, soft, pixel));
    if (gone <= 0.95 && d >= from)
      most = Math.max(most, lineAt(offFrom(at + lean * (d - from)), half * 0.6, soft, pixel));
  }
  return most;
}

/**
 * What a drawn shape covers at q, −1 to 1 across and along: `grains` is where patterns look, `way` tells one particle's shape
 * from another's, `fine` is how far a pixel and a half reaches outward, `pixel` how far one reaches across.
 */
export function shapeAt(step, q, { grains, way, age, fine, pixel }) {
  const [soft, width, d] = [step.softness / 100, step.width / 100, Math.hypot(...q)];
  const dotAt = (r) =>
    Math.max(0, 1 - r * r) ** (0.35 + 5.3 * soft) * blend(1, 0.3 + 0.7 * Math.exp(-9 * r * r), Math.min(1, 2 * soft));
  const around = (value, half) =>
    smoothstep(0.5 - Math.max(0.02, soft) * half, 0.5 + Math.max(0.02, soft) * half, value);
  switch (step.shape) {
    case 'soft dot':
      return dotAt(d);
    case 'band':
      return dotAt(q[0]);
    case 'disc':
      return 1 - smoothstep(1 - Math.max(soft * soft, fine), 1, d);
    case 'ring': {
      const off = Math.abs(d - (1 - width / 2)) / (width / 2);
      const inner = soft * 0.25 * Math.exp(-(((d - 1 + width * 1.6) / width) ** 2));
      return (1 - smoothstep(1 - Math.max(soft, fine / width), 1, off) + inner) * (1 - smoothstep(1 - fine, 1, d));
    }
    case 'streak': {
      const thin = Math.max(width * (1 - 0.85 * q[1] * q[1]), 1e-4);
      const x = Math.abs(q[0]) / thin;
      const hard = 1 - smoothstep(1 - Math.max(fine / thin, 0.05), 1, x);
      return blend(hard, Math.exp(-2.5 * x * x), soft) * Math.max(0, 1 - q[1] * q[1]) ** (0.5 + 3 * soft);
    }
    case 'flare': {
      const [x, y] = q.map(Math.abs);
      const thin = 3.12 / Math.max(width, 1e-3);
      const rays = Math.exp(-x * thin - y * 2.6) + Math.exp(-y * thin - x * 2.6);
      const glow = Math.max(0, 1 - d) ** 4 * (0.7 + 3 * soft);
      return glow + rays * (1 - smoothstep(0.3, 1, d)) * 0.8 + Math.exp(-60 * d * d) * 1.5;
    }
    case 'star': {
      const turn = (Math.atan2(q[0], q[1]) * Math.max(2, Math.floor(step.points + 0.5))) / (2 * Math.PI);
      const tip = 1 - 2 * Math.abs(fract(turn + 0.5) - 0.5);
      const reach = 1 / blend(1 / Math.max(width, 0.02), 1, tip * tip);
      return 1 - smoothstep(reach * (1 - Math.max(soft, fine / reach)), reach, d);
    }
    case 'polygon': {
      const sector = (2 * Math.PI) / Math.max(3, Math.floor(step.points + 0.5));
      const reach = Math.max(
        1e-4,
        Math.cos(sector / 2) / Math.cos(modulo(Math.atan2(q[0], q[1]), sector) - sector / 2),
      );
      const edge = Math.max((soft * width) / 2, fine / reach);
      const inner = width > 0.999 ? 1 : smoothstep(1 - width, 1 - width + edge, d / reach);
      return (1 - smoothstep(1 - edge, 1, d / reach)) * inner;
    }
    case 'star polygon': {
      const corners = Math.max(3, Math.floor(step.points + 0.5));
      const skips = clamp(Math.floor(step.skips + 0.5), 1, Math.floor((corners - 1) / 2));
      const [half, turn] = [width / 2, Math.PI / corners];
      const [off, reach] = [(1 - half) * Math.cos(skips * turn), (1 - half) * Math.sin(skips * turn)];
      const nearest = Math.min(
        ...Array.from({ length: corners }, (_, n) => {
          const [x, y] = [Math.sin((2 * n + skips) * turn), Math.cos((2 * n + skips) * turn)];
          return Math.hypot(q[0] * x + q[1] * y - off, Math.max(0, Math.abs(q[0] * y - q[1] * x) - reach));
        }),
      );
      return 1 - smoothstep(half * (1 - Math.max(soft, Math.min(1, (1.5 * pixel) / half))), half, nearest);
    }
    case 'spiral': {
      const arms = Math.max(1, Math.floor(step.points + 0.5));
      const off = 2 * Math.abs(fract((Math.atan2(q[0], q[1]) / (2 * Math.PI)) * arms - d * step.turns * arms) - 0.5);
      const run = pixel * arms * (0.6 / Math.max(d, 0.02) + 2 * Math.abs(step.turns));
      const blur = Math.max(soft * width, Math.min(1, run));
      const arm = 1 - smoothstep(Math.max(0, width - blur), width + blur * 0.02 + 1e-4, off);
      return arm * (1 - smoothstep(1 - Math.max(soft / 4, fine), 1, d));
    }
    case 'ring of marks': {
      const [marks, filled] = [Math.max(2, Math.floor(step.points + 0.5)), 1 - step.gap / 100];
      const along = 2 * Math.abs(fract((Math.atan2(q[0], q[1]) / (2 * Math.PI)) * marks + 0.5) - 0.5);
      const across = Math.abs(d - (1 - width / 2)) / (width / 2);
      const blur = Math.max(soft, Math.min(1, fine / width));
      const blurAlong = Math.max(soft * filled, Math.min(1, (fine * marks) / (Math.PI * Math.max(d, 0.05))));
      const mark = 1 - smoothstep(Math.max(0, filled - blurAlong), filled + 1e-4, along);
      return mark * (1 - smoothstep(1 - blur, 1, across));
    }
    case 'strokes': {
      const strokes = Math.max(2, Math.floor(step.points + 0.5));
      const most = Array.from({ length: strokes }, (_, n) => {
        const lots = hash3([n, way, 11]);
        const reach = 0.6 + 0.4 * lots[0];
        const y = (q[1] - (lots[1] - 0.5) * (1 - reach) * 1.6) / reach;
        if (Math.abs(y) > 1) return 0;
        const middle = (((n + 0.5) / strokes) * 2 - 1) * 0.8 + ((lots[2] - 0.5) * 0.5) / strokes + 0.08 * y * y;
        const half = Math.max(((width * 2) / strokes) * (1 - y * y) * 0.5, 1e-4);
        const blur = Math.max(soft, Math.min(1, (1.5 * pixel) / half));
        return (1 - smoothstep(1 - blur, 1, Math.abs(q[0] - middle) / half)) * Math.min(1, half / (0.7 * pixel));
      });
      return Math.max(...most);
    }
    case 'gradient bar': {
      const blur = Math.max(soft, Math.min(1, (1.5 * pixel) / width));
      if (Math.abs(q[1]) > 1) return 0;
      return (1 - smoothstep(1 - blur, 1, Math.abs(q[0]) / width)) * clamp(q[1] / 2 + 0.5);
    }
    case 'bolt':
      return boltAt(step, q, way * 97 + Math.floor(age * step.struck * 0.99999) * 13, pixel);
    case 'crack':
      return crackAt(step, q, way, pixel);
    case 'cells':
      return around(cells(grains), 0.5);
    case 'clouds':
      return around(clouds(grains), 0.6);
  }
  throw new Error(`There is no drawn shape "${step.shape}".`);
}
