import { listed, type Effect } from '@jinx/core/document';
import type { Rig } from '@jinx/core/geometry';
import type { StageFigure } from '@jinx/stage';

/** The things of a stage in the order in which figures are numbered: by id. */
export const thingsById = ({ stage }: Pick<Effect, 'stage'>) =>
  listed(stage.things).sort((a, b) => (a.id < b.id ? -1 : 1));

/**
 * The figures of an instance whose matrices begin at `boneStart`, as far as their rigs are here, in the order of its scene:
 * by id, each thing's bones and then its feet; and where the matrices of the next instance begin.
 */
export function figuresOf(
  effect: Pick<Effect, 'stage'>,
  rigs: { get(hash: string): Rig | undefined },
  boneStart = 0,
): { readonly figures: StageFigure[]; readonly next: number } {
  let at = boneStart;
  const figures = thingsById(effect).flatMap(({ item }): StageFigure[] => {
    const rig = rigs.get(item.asset);
    if (!rig) return [];
    const { mesh, texture, inverseBind, bones } = rig;
    const figure = { mesh, texture, inverseBind, boneStart: at };
    at += bones.length + 1;
    return [figure];
  });
  // The effect's own frame follows its things.
  return { figures, next: at + 1 };
}
