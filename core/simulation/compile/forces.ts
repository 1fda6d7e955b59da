import {
  actingValue,
  FORCES,
  forcesOn,
  settingsByName,
  tableByName,
  type ChoiceDeclaration,
  type ChoiceSetting,
  type Effect,
  type Force,
  type NumberDeclaration,
  type NumberSetting,
  type VectorDeclaration,
  type VectorSetting,
} from '../../document/index.ts';
import { FALLOFFS, type Falloff } from '../../kernels/index.ts';
import type { ForceBinding } from '../forces/index.ts';
import { NO_GROUP, type GroupFrame } from '../scene/groups.ts';
import { NumberReader } from '../values/numberReader.ts';
import { VectorReader } from '../values/vectorReader.ts';
import type { BoundForce, ForceWhere } from './plan.ts';

/** A force's settings by name, as the groups of a layer make them. */
class Binding implements ForceBinding {
  readonly id: string;
  readonly seed: number;
  readonly #effect: Effect;
  readonly #force: Force;
  readonly group: GroupFrame;

  constructor(id: string, force: Force, effect: Effect, group: GroupFrame) {
    [this.id, this.#force, this.#effect, this.group] = [id, force, effect, group];
    this.seed = effect.seed;
  }

  number(name: string, times = 1): NumberReader {
    const table = tableByName<NumberDeclaration>(FORCES[this.#force.kind].settings);
    const setting = settingsByName<NumberSetting>(this.#force)[name]!;
    const made = { group: this.group.scale, times };
    return new NumberReader(setting, table[name]!, `force/${this.id}/${name}`, this.#effect, made);
  }

  vector(name: string): VectorReader {
    const setting = settingsByName<VectorSetting>(this.#force)[name]!;
    const table = tableByName<VectorDeclaration>(FORCES[this.#force.kind].settings);
    return new VectorReader(setting, table[name]!, `force/${this.id}/${name}`, this.#effect, this.group.scale);
  }

  choice(name: string): string {
    const setting = settingsByName<ChoiceSetting>(this.#force)[name]!;
    const table = tableByName<ChoiceDeclaration>(FORCES[this.#force.kind].settings);
    return actingValue(setting, table[name]!);
  }

  where(fadesSoftly: boolean): ForceWhere {
    const has = (name: string) => name in FORCES[this.#force.kind].settings;
    const falloff = has('falloff') && !fadesSoftly ? FALLOFFS.indexOf(this.choice('falloff') as Falloff) : 0;
    return {
      place: this.#force.place,
      group: this.group.matrix,
      reach: has('reach') ? this.number('reach') : null,
      falloff,
      share: this.number('share'),
      shareSlot: `force/${this.id}/share`,
      threshold: has('threshold') ? this.number('threshold') : null,
    };
  }
}

function bindForce(id: string, force: Force, effect: Effect, group: GroupFrame): BoundForce {
  const binding = new Binding(id, force, effect, group);
  const { phase, bind } = FORCES[force.kind];
  const action = bind(binding);
  return {
    ...action,
    each: action.each as readonly NumberReader[],
    halving: (action.halving ?? []) as readonly NumberReader[],
    phase,
    where: binding.where(action.fadesSoftly ?? false),
  };
}

/** The forces that a layer's particles feel, ready to act, by id. Those of the effect feel no groups. */
export const boundForces = (id: string, group: GroupFrame, effect: Effect): BoundForce[] =>
  forcesOn(effect, id)
    .filter(({ item }) => !item.muted)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map(({ id: force, item, isShared }) => bindForce(force, item, effect, isShared ? NO_GROUP : group));
