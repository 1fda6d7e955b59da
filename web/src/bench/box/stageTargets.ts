import { freeName, listed, namedColour, structuredCopy, withItem, type Effect } from '@jinx/core/document';
import { resize } from '@jinx/core/editing';
import { plainNumber, readNumber, within } from '../entry/numbers';
import { SURROUNDS } from '../stage/surrounds';
import { hexTyped } from '../values/colour';
import type { CommandId } from '../commands/list';
import type { Target } from './target';

/** Size and tempo of the effect as a whole, by law. */
const lawTarget = (of: 'size' | 'tempo', text: string, otherWords: readonly string[]): Target => ({
  id: `law ${of}`,
  text,
  otherWords,
  detail: 'whole effect',
  run: ({ showWhole, focus }) => {
    showWhole();
    focus(text);
  },
  take: (typed) => {
    const times = within(readNumber(typed.replace(/^[*×]\s*/, '')), { name: text, least: 0.05, most: 20, unit: '' });
    return {
      text: `${text}: ${plainNumber(times)}`,
      run: ({ change }) =>
        change('set size and tempo', (draft) => {
          const copy = structuredCopy(draft);
          resize(copy, { size: 1, tempo: 1, [of]: times }, new Set());
          Object.assign(draft, copy);
        }),
    };
  },
});

/** Something of the stage that is switched on and off, and has one percentage that says how much of it there is. */
interface Switched<T> {
  readonly name: string;
  readonly otherWords: readonly string[];
  /** Percent at most. */
  readonly most: number;
  readonly of: (stage: Effect['stage']) => T;
  readonly set: (part: T, percent: number) => void;
  readonly said: (percent: string) => string;
}
function switchedTarget<T extends { isOn: boolean }>(effect: Effect, switched: Switched<T>): Target {
  const { name, otherWords, most, of, set, said } = switched;
  return {
    id: name,
    text: name,
    otherWords,
    detail: of(effect.stage).isOn ? 'on: this switches it off' : 'off: this switches it on',
    previews: true,
    run: ({ change }) =>
      change(`switch ${name}`, ({ stage }) => {
        const part = of(stage);
        part.isOn = !part.isOn;
      }),
    take: (text) => {
      const percent = within(readNumber(text, { unit: '%' }), { name, least: 0, most, unit: '%' });
      return {
        text: said(`${plainNumber(percent)}%`),
        run: ({ change }) =>
          change(`set the ${name}`, ({ stage }) => {
            const part = of(stage);
            part.isOn = percent > 0;
            set(part, percent);
          }),
      };
    },
  };
}

/** The stage and the effect as a whole: surround, fog, size and tempo, colours with names. */
export function stageTargets(effect: Effect, keyOf: (command: CommandId) => { readonly key?: string }): Target[] {
  return [
    ...SURROUNDS.map(({ value, text, otherWords }): Target => ({
      id: `surround ${value}`,
      text,
      otherWords: [`surround ${text}`, ...otherWords],
      detail: 'a surround',
      ...keyOf(`surround.${value}`),
      previews: true,
      run: ({ change }) => change('choose the surround', (draft) => (draft.stage.surround = value)),
    })),
    switchedTarget(effect, {
      name: 'fog',
      otherWords: ['mist', 'atmosphere', 'volumetric fog'],
      most: 95,
      of: ({ air }) => air.fog,
      set: (fog, density) => (fog.density = density),
      said: (percent) => `fog: a metre hides ${percent}`,
    }),
    switchedTarget(effect, {
      name: 'bloom',
      otherWords: ['glow of the picture', 'lens bloom'],
      most: 400,
      of: ({ lens }) => lens.bloom,
      set: (bloom, strength) => (bloom.strength = strength),
      said: (percent) => `bloom: ${percent}`,
    }),
    {
      id: 'exposure',
      text: 'exposure',
      otherWords: ['picture brightness', 'stops of light'],
      detail: 'doublings of the light',
      run: ({ focus }) => focus('Lens and air'),
      take: (text) => {
        const exposure = within(readNumber(text), { name: 'exposure', least: -8, most: 8, unit: '' });
        return {
          text: `exposure: ${plainNumber(exposure)}`,
          run: ({ change }) => change('set exposure', ({ stage }) => (stage.lens.exposure = exposure)),
        };
      },
    },
    lawTarget('size', 'times as large', ['scale effect', 'overall scale', 'whole effect size']),
    lawTarget('tempo', 'times as fast', ['time scale', 'overall speed', 'whole effect speed']),
    {
      id: 'palette new',
      text: 'name a colour',
      otherWords: ['new palette colour', 'palette', 'new swatch'],
      detail: 'as in: name a colour Lamp #e8f070',
      run: ({ change, newId }) =>
        change('name a colour', (draft) => {
          draft.palette = withItem(draft.palette, newId(), namedColour(freeName(draft.palette, 'Lamp'), '#e8f070'));
        }),
      take: (text) => {
        const words = text.trim().split(/\s+/);
        const hex = hexTyped(words.at(-1)!);
        if (hex === null) throw new Error('A colour is named with what it is: Lamp #e8f070');
        const name = words.slice(0, -1).join(' ').slice(0, 80) || 'Lamp';
        const known = listed(effect.palette).find(({ item }) => item.name.toLowerCase() === name.toLowerCase());
        return {
          text: `${known ? 'set' : 'name'} the colour ${name}: ${hex}`,
          run: ({ change, newId }) =>
            change('name a colour', (draft) => {
              if (known) draft.palette.byId[known.id]!.colour = { kind: 'fixed', hex };
              else draft.palette = withItem(draft.palette, newId(), namedColour(freeName(draft.palette, name), hex));
            }),
        };
      },
    },
    ...listed(effect.palette).map(({ id, item }): Target => ({
      id: `expose colour ${id}`,
      text: `expose ${item.name}`,
      otherWords: [`bring out ${item.name}`, `dial of ${item.name}`],
      detail: item.isDial ? 'a dial already' : 'a colour of the palette',
      run: ({ change }) => change('bring a colour out', (draft) => (draft.palette.byId[id]!.isDial = true)),
    })),
  ];
}
