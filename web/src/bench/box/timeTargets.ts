import { atBorder, withItem, type Effect } from '@jinx/core/document';
import { delayLayers, setPlaying, setStretch } from '@jinx/core/editing';
import { firstBurst } from '../acts/useBurstActs';
import { plainNumber, readNumber, within, type Limits } from '../entry/numbers';
import { PLAYINGS } from '../stage/playings';
import type { Target } from './target';

const secondsOf = (text: string, limits: Limits) => within(readNumber(text, { unit: 's' }), limits);

const STRETCHES = [
  ['opening', ['intro', 'start-up', 'ramp up', 'opens']],
  ['hold', ['sustain', 'loop length', 'hold time', 'effect duration']],
  ['closing', ['outro', 'release time', 'ramp down']],
] as const;
/** A count, when it comes, how far apart it comes again, and how often: "18 at 0.2 every 0.4, 3 times". */
const BURST = /^(?:of\s+)?([\d., ]+?)(?:\s+at\s+(.+?))?(?:,?\s+(?:again\s+)?every\s+(.+?))?(?:,?\s+(\d+)\s+times)?$/;

/** Lengths and times of the effect and of the chosen layer that are no settings of the table. */
export function timeTargets(effect: Effect, layerId: string): Target[] {
  const layer = effect.layers.byId[layerId];
  const own: Target[] = layer
    ? [
        {
          id: 'burst',
          text: 'burst',
          otherWords: [
            'add a burst',
            'burst count',
            'emit at once',
            'explosion of particles',
            'explode',
            'particles',
            'at once',
            'particles at once',
          ],
          detail: layer.bursts.order.length > 0 ? `${layer.name} · births` : 'adds a burst',
          run: (tools) => {
            if (layer.bursts.order.length === 0) tools.add({ kind: 'burst' });
            tools.leadTo('births', null, 'burst count');
          },
          take: (text) => {
            const read = BURST.exec(text.trim());
            if (!read)
              throw new Error('A burst is a number, and when it comes: 18 at 0.2, or 18 at 0.2 every 0.4, 3 times');
            const limits = { name: 'a burst', least: 0, most: 1_000_000, unit: '', whole: true };
            const count = within(readNumber(read[1]!), limits);
            const at =
              read[2] === undefined
                ? null
                : secondsOf(read[2], { name: 'its time', least: 0, most: 3600, unit: 's' });
            const every =
              read[3] === undefined
                ? null
                : secondsOf(read[3], { name: 'how far apart', least: 0.01, most: 600, unit: 's' });
            const often = { name: 'how often', least: 1, most: 1000, unit: '', whole: true };
            const times = every === null ? null : within(readNumber(read[4] ?? '2'), often);
            const again = every === null ? {} : { every, times: times! };
            return {
              text: `burst of ${count}${at === null ? '' : ` at ${at} s`}${every === null ? '' : ` every ${every} s, ${times} times`}`,
              run: (tools) => {
                const made = tools.newId();
                const fresh = firstBurst(tools.effect());
                tools.changeLayers('set a burst', (target) => {
                  const [first = made] = target.bursts.order;
                  const known = target.bursts.byId[first] ?? fresh;
                  const next = { ...known, ...again, count, most: count, at: at ?? known.at };
                  target.bursts = withItem(target.bursts, first, next);
                });
                tools.leadTo('births', null, 'burst count');
              },
            };
          },
        },
        ...(['from', 'until'] as const).map((end): Target => ({
          id: `births ${end}`,
          text: end === 'from' ? 'births begin' : 'births end',
          otherWords:
            end === 'from'
              ? ['start delay', 'start time', 'wait']
              : ['stop time', 'end time', 'emission duration', 'stop emitting'],
          detail: `${layer.name} · births`,
          run: ({ leadTo }) => leadTo('births', null, end === 'from' ? 'births begin' : 'births end'),
          take: (text) => {
            const seconds = secondsOf(text, { name: 'the time', least: -3600, most: 3600, unit: 's' });
            return {
              text: `births ${end === 'from' ? 'begin' : 'end'} at ${seconds} s`,
              run: (tools) => {
                tools.changeLayers('set when births happen', (target) => {
                  const known = target.births[end];
                  target.births[end] = { ...(known ?? atBorder('start')), seconds, measure: null };
                });
                tools.leadTo('births', null, end === 'from' ? 'births begin' : 'births end');
              },
            };
          },
        })),
        {
          id: 'delay',
          text: 'later by',
          otherWords: ['time offset', 'shift in time', 'delay everything', 'earlier by'],
          detail: 'births, bursts and hits of the chosen layers',
          help: 'Moves them all by so many seconds; earlier where they are negative.',
          run: ({ leadTo }) => leadTo('births', null, 'births begin'),
          take: (text) => {
            const seconds = secondsOf(text, { name: 'the delay', least: -3600, most: 3600, unit: 's' });
            return {
              text: `${seconds < 0 ? 'earlier' : 'later'} by ${Math.abs(seconds)} s`,
              run: (tools) => {
                const layers = tools.chosenIds();
                tools.change('delay layers', (draft) => delayLayers(draft, layers, seconds));
              },
            };
          },
        },
        {
          id: 'rename',
          text: 'name of the layer',
          otherWords: ['rename', 'layer name'],
          detail: layer.name,
          run: ({ leadTo }) => leadTo('source', null, 'layer name'),
          take: (text) => ({
            text: `name: ${text.trim()}`,
            run: (tools) =>
              tools.changeLayers('rename a layer', (target, id) => {
                if (id === layerId) target.name = text.trim().slice(0, 80);
              }),
          }),
        },
      ]
    : [];
  return [
    ...own,
    ...STRETCHES.map(([name, otherWords]): Target => ({
      id: `stretch ${name}`,
      text: name,
      otherWords,
      detail: 'length of a stretch',
      run: ({ focus }) => focus(`${name} in seconds`),
      take: (text) => {
        const seconds = secondsOf(text, { name: `the ${name}`, least: 0, most: 600, unit: 's' });
        return {
          text: `${name}: ${plainNumber(seconds)} s`,
          run: ({ change }) => change(`set the ${name}`, (draft) => setStretch(draft, name, seconds)),
        };
      },
    })),
    {
      id: 'pre-roll',
      text: 'pre-roll',
      otherWords: ['warmed up', 'warm-up', 'warmup', 'already full', 'pre-simulate'],
      detail: 'how long it has held when first seen',
      run: ({ showWhole, focus }) => {
        showWhole();
        focus('pre-roll');
      },
      take: (text) => {
        const seconds = secondsOf(text, { name: 'the pre-roll', least: 0, most: 60, unit: 's' });
        return {
          text: `pre-roll: ${plainNumber(seconds)} s`,
          run: ({ change }) => change('set the pre-roll', (draft) => (draft.stretches.preRoll = seconds)),
        };
      },
    },
    ...PLAYINGS.map(({ value, text, help, otherWords }): Target => ({
      id: `plays ${value}`,
      text,
      otherWords,
      detail: 'how the effect plays',
      help,
      previews: true,
      run: ({ change }) => change('change how it plays', (draft) => setPlaying(draft, value)),
    })),
    {
      id: 'seed',
      text: 'seed',
      otherWords: ['random seed'],
      detail: 'whole effect',
      run: ({ showWhole, focus }) => {
        showWhole();
        focus('seed');
      },
      take: (text) => {
        const seed = within(readNumber(text), {
          name: 'the seed',
          least: 0,
          most: 2 ** 32 - 1,
          unit: '',
          whole: true,
        });
        return { text: `seed: ${seed}`, run: ({ change }) => change('set the seed', (draft) => (draft.seed = seed)) };
      },
    },
  ];
}
