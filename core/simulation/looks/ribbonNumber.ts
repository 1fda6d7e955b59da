import {
  RIBBON_SETTINGS,
  settingsByName,
  tableByName,
  type Effect,
  type NumberDeclaration,
  type NumberSetting,
  type Ribbon,
} from '../../document/index.ts';
import { NumberReader } from '../values/numberReader.ts';

/** A number setting of a ribbon, ready to be read; `group` is the scale of the groups it stands in. */
export function ribbonNumber(
  ribbon: Ribbon,
  name: string,
  effect: Pick<Effect, 'measures'>,
  group: number,
): NumberReader {
  const table = tableByName<NumberDeclaration>(RIBBON_SETTINGS[ribbon.kind]);
  const settings = settingsByName<NumberSetting>(ribbon);
  return new NumberReader(settings[name]!, table[name]!, `ribbon/${name}`, effect, { group });
}
