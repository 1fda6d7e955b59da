import { strToU8 } from 'fflate';
import { DEEP, type Lie, type Loose } from './lie.ts';
import type { Random } from './random.ts';

/** Spoils how pictures are taken, as text or before it is one. */
const PRESET: Readonly<Record<string, (preset: Loose, random: Random) => string | void>> = {
  'no width': (p) => void (p.settings.width = 0),
  'a vast height': (p) => void (p.settings.height = 1e9),
  'half a point': (p) => void (p.settings.width = 640.5),
  'a rate of a text': (p) => void (p.settings.rate = 'fast'),
  'an endless length': (p) => JSON.stringify(p).replace(/"length":[^,]*/, '"length":1e999'),
  'a beginning before the effect': (p, random) => void (p.settings.from = -1 - random.below(100)),
  'a seed below all': (p) => void (p.settings.seed = -1),
  'a kind that is unknown': (p) => void (p.settings.as = 'exe'),
  'a camera that is none': (p) => void (p.settings.camera = { position: 'here' }),
  'a dial that is a list': (p) => void (p.settings.dials = { glow: [1, 2] }),
  'dials past all length': (p) => {
    p.settings.dials = Object.fromEntries(Array.from({ length: 5000 }, (_, n) => [`d${n}`, n]));
  },
  'a tier that is none': (p) => void (p.settings.quality = 'best'),
  'a film of a vast rate': (p) => void (p.settings.bitrate = 1e12),
  'a setting that is unknown': (p) => void (p.settings.script = 'alert(1)'),
  'a setting that is missing': (p, random) => void delete p.settings[random.one(['as', 'width', 'dials', 'codec'])],
  'no settings': (p) => void delete p.settings,
  'no name': (p) => void (p.name = ' '),
  'a name that goes on': (p) => void (p.name = 'x'.repeat(5000)),
  'no JSON': (p) => JSON.stringify(p).slice(1),
  'two hundred levels': (p) => JSON.stringify(p).replace('"dials":{}', `"dials":${DEEP}`),
};

/** Every lie about a preset by what it is. */
export const PRESET_LIES: readonly (readonly [string, Lie])[] = Object.entries(PRESET).map(([name, spoil]) => [
  `a preset with ${name}`,
  ({ preset }, random) => {
    const copy = JSON.parse(preset) as Loose;
    return { to: 'presets', name: '', bytes: strToU8(spoil(copy, random) ?? JSON.stringify(copy)) };
  },
]);
