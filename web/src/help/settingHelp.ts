import { REFUSALS, type Declaration, type NumberDeclaration } from '@jinx/core/document';
import { plainNumber, unitText } from '../bench/entry/numbers';
import { choicesOf } from '../bench/choices/choices';

/** What a tooltip says of a setting, line by line: what it does, its limits and where it begins, and when it acts. */
export function settingHelp(declaration: Declaration): string[] {
  return [declaration.help, limitsOf(declaration), ACTS[declaration.acts], shapedBy(declaration)].filter(Boolean);
}

const ACTS: Readonly<Record<Declaration['acts'], string>> = {
  birth: 'Acts at birth: what lives already keeps what it was born with.',
  step: 'Acts in every step.',
  dress: 'Acts on the drawing alone: nothing is simulated again.',
};

const READS: Readonly<Record<Declaration['reads'][number], string>> = {
  age: 'age',
  effectTime: 'the effect’s time',
  stretchTime: 'the time of a stretch',
  speed: 'speed',
  distance: 'distance travelled',
  aimDistance: 'the distance to its aim',
  carrierSpeed: 'the speed of what carries it',
  along: 'the length of a ribbon',
  channel: 'a channel',
  dial: 'a dial',
};
function shapedBy({ reads, refuses }: Declaration): string {
  const why = refuses ? ` ${REFUSALS[refuses]}` : '';
  return reads.length === 0 ? '' : `Can be shaped by ${reads.map((read) => READS[read]).join(', ')}.${why}`;
}

const withUnit = (value: number, { unit }: Pick<NumberDeclaration, 'unit'>) =>
  `${plainNumber(value)}${unitText(unit)}`;

function limitsOf(declaration: Declaration): string {
  switch (declaration.value) {
    case 'number': {
      const { least, most, byDefault, whole, zero, bases } = declaration;
      const begins = typeof byDefault === 'number' ? [byDefault] : byDefault;
      const limits = `${plainNumber(least)} to ${withUnit(most, declaration)}${whole ? ', in whole numbers' : ''}`;
      const spread = bases.includes('spread') ? ', or a spread such as 1-2' : '';
      const none = zero === undefined ? '' : ` 0 is ${zero}.`;
      return `${limits}${spread}. Begins as ${begins.map((value) => withUnit(value, declaration)).join(' – ')}.${none}`;
    }
    case 'vector': {
      const { least, most, byDefault, unit } = declaration;
      const limits = `${plainNumber(least)} to ${withUnit(most, { unit })} on each axis`;
      return `${limits}. Begins as ${byDefault.map(plainNumber).join(', ')}${unitText(unit)}.`;
    }
    case 'choice': {
      const choices = choicesOf(declaration);
      const begins = choices.find(({ value }) => value === declaration.byDefault)?.text ?? declaration.byDefault;
      return `One of: ${choices.map(({ text }) => text).join(', ')}. Begins as ${begins}.`;
    }
    case 'switch': {
      const words = { yes: 'on', no: 'off', ...declaration.words };
      return `${words.yes} or ${words.no}. Begins as ${declaration.byDefault ? words.yes : words.no}.`;
    }
    case 'colour':
      return `Begins as ${declaration.byDefault}.`;
  }
}
