import { listed, type Dial, type Effect, type Id, type Measure } from '@jinx/core/document';
import { plainNumber, type Limits } from '../entry/numbers';
import { readPlain } from '../entry/entry';
import { MEASURE_UNITS } from '../names/given';
import type { Act, Target, Tools } from './target';
import { METRES, readVector } from './values';

/** What is set for the effect as a whole is led to by its name. */
const lead =
  (name: string) =>
  ({ showWhole, focus }: Tools): void => {
    showWhole();
    focus(name);
  };

const measureTarget = (id: Id, { name, quantity, value }: Measure): Target => ({
  id: `measure ${id}`,
  text: name,
  otherWords: [`measure ${name}`],
  detail: `a measure, ${plainNumber(value)} ${MEASURE_UNITS[quantity]}`.trim(),
  run: lead(name),
  take: (text) => {
    const limits: Limits = {
      name,
      least: 0,
      most: 1_000_000,
      unit: MEASURE_UNITS[quantity],
      whole: quantity === 'count',
    };
    const next = readPlain(text, limits, value);
    return {
      text: `${name}: ${plainNumber(next)} ${MEASURE_UNITS[quantity]}`.trim(),
      run: ({ change }) => change('set a measure', (draft) => void (draft.measures.byId[id]!.value = next)),
    };
  },
});

/** What was typed for a dial, and how it reads. */
function readDial(dial: Dial, text: string): { readonly part: Partial<Dial>; readonly words: string } {
  const { name } = dial;
  switch (dial.kind) {
    case 'number': {
      const value = readPlain(text, { name, least: dial.least, most: dial.most, unit: '' }, dial.value);
      return { part: { value }, words: plainNumber(value) };
    }
    case 'switch': {
      const isOn = /^(on|yes)$/i.test(text.trim());
      if (!isOn && !/^(off|no)$/i.test(text.trim())) throw new Error(`${name} is on or off`);
      return { part: { value: isOn }, words: isOn ? 'on' : 'off' };
    }
    case 'place': {
      const at = readVector(text, { name, ...METRES });
      return { part: { at }, words: `${at.join(', ')} m` };
    }
    case 'direction': {
      const turn = readVector(text, { name, least: -360, most: 360, unit: '°' });
      return { part: { turn }, words: `${turn.join(', ')}°` };
    }
    default:
      throw new Error(`${name} is chosen where the dials are`);
  }
}

const dialTarget = (id: Id, dial: Dial): Target => ({
  id: `dial ${id}`,
  text: dial.name,
  otherWords: [`dial ${dial.name}`],
  detail: 'a dial',
  run: lead(dial.name),
  take: (text): Act => {
    const { part, words } = readDial(dial, text);
    return {
      text: `${dial.name}: ${words}`,
      run: ({ change }) => change('set a dial', (draft) => void Object.assign(draft.dials.byId[id]!, part)),
    };
  },
});

/** Measures and dials by their names: gone to, and set by a value. */
export const namedTargets = (effect: Effect): Target[] => [
  ...listed(effect.measures).map(({ id, item }) => measureTarget(id, item)),
  ...listed(effect.dials).map(({ id, item }) => dialTarget(id, item)),
];
