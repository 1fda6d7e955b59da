import type { Declaration } from '../../settings/index.ts';
import { forceWord } from '../declarations/forces.ts';
import { STEP_NAMES } from '../declarations/looks.ts';
import { stepsOf } from '../look.ts';
import type { Effect } from '../schema/index.ts';
import type { HolderAddress, SettingAddress } from './address.ts';
import { nameOfPart } from './parts.ts';

/** What a part with settings is called: forces and steps by their kinds' names, anything else by its own. */
function nameOfHolder(effect: Effect, address: HolderAddress): string {
  if (address.kind === 'force') {
    const force = effect.layers.byId[address.layer]?.forces.byId[address.id];
    if (force) return forceWord(force.kind);
  }
  if (address.kind === 'sharedForce') {
    const shared = effect.forces.byId[address.id];
    if (shared) return forceWord(shared.force.kind);
  }
  if (address.kind === 'step') {
    const layer = effect.layers.byId[address.layer];
    const step = layer && stepsOf(effect, layer).find(({ id }) => id === address.id);
    if (step) return STEP_NAMES[step.item.kind].toLowerCase();
  }
  return nameOfPart(effect, address).replace(/^./, (letter) => letter.toLowerCase());
}

/** A setting's name for people, wherever it is named: with whose it is, where it is not the layer's own or what that is drawn as. */
export function nameOfSetting(effect: Effect, address: SettingAddress, { name }: Pick<Declaration, 'name'>): string {
  if (address.kind === 'layer' || address.kind === 'drawn' || address.kind === 'channels') return name;
  return `${nameOfHolder(effect, address)} ${name}`;
}
