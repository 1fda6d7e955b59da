import {
  listed,
  newStep,
  STEP_NAMES,
  withItem,
  withoutItem,
  type Collection,
  type Effect,
  type Id,
  type Step,
  type StepKind,
} from '@jinx/core/document';
import { useEffectStore } from '../../stores/effect';

/** What layers changed of steps that are gone goes too. */
function dropLooseChanges(draft: Effect): void {
  for (const { item } of listed(draft.layers)) {
    if (item.look.kind !== 'named') continue;
    const { byId } = draft.looks.byId[item.look.look]!.steps;
    for (const id of Object.keys(item.look.changes)) if (!byId[id]) delete item.look.changes[id];
  }
}
/** Steps that say where those after them look: they stand first. */
const MOVES: ReadonlySet<StepKind> = new Set(['scroll', 'warp']);

/** Changes the steps of the chosen layer's look: its own, or those of the look it uses, for all who use it. */
export function useStepActs() {
  const store = useEffectStore();
  const changeSteps = (label: string, recipe: (steps: Collection<Step>) => Collection<Step>) =>
    store.change(label, (draft) => {
      const { look } = draft.layers.byId[store.chosenId]!;
      const holder = look.kind === 'own' ? look : draft.looks.byId[look.look];
      if (holder) holder.steps = recipe(holder.steps);
      dropLooseChanges(draft);
    });
  /** Adds a step where it acts: what moves the others goes before them. Returns its id. */
  function add(kind: StepKind): Id {
    const id = store.newId();
    changeSteps(`add ${STEP_NAMES[kind].toLowerCase()} to the look`, (all) =>
      withItem(all, id, newStep(kind), MOVES.has(kind) ? 0 : undefined),
    );
    return id;
  }
  const remove = (id: Id) => changeSteps('remove a step of the look', (all) => withoutItem(all, id));
  const mute = (id: Id, muted: boolean) =>
    changeSteps(muted ? 'mute a step' : 'unmute a step', (all) => ({
      order: all.order,
      byId: { ...all.byId, [id]: { ...all.byId[id]!, muted } },
    }));
  return { changeSteps, add, remove, mute };
}
