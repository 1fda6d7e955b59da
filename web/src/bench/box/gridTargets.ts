import { formatAddress, STEP_SETTINGS, stepsOf, type Effect, type Id, type NumberSetting } from '@jinx/core/document';
import { within } from '../entry/numbers';
import type { Target, Tools } from './target';

const GRID = /^(\d+)\s*(?:x|×|by|,|\s)\s*(\d+)$/i;

/** Columns and rows of a picture of frames at once, `4x4` or `4 by 2`; without a picture in the look one is added. */
export function gridTargets(effect: Effect, layerId: Id): Target[] {
  const layer = effect.layers.byId[layerId];
  if (!layer) return [];
  const known = stepsOf(effect, layer).find(({ item }) => item.kind === 'picture')?.id ?? null;
  const addressOf = (id: Id, setting: string) => ({ kind: 'step', layer: layerId, id, setting }) as const;
  const stepIn = (tools: Tools): Id => known ?? tools.add({ kind: 'step', of: 'picture' }) ?? '';
  return [
    {
      id: 'picture grid',
      text: 'columns and rows',
      otherWords: ['flipbook', 'flipbook grid', 'frames of the picture', 'picture grid'],
      detail: known === null ? 'adds picture' : `${layer.name} · appearance`,
      help: 'Frames that lie side by side in the picture, and under each other',
      run: (tools) => tools.leadTo('appearance', formatAddress(addressOf(stepIn(tools), 'columns'))),
      take: (text) => {
        const grid = GRID.exec(text.trim());
        if (!grid) throw new Error('Columns and rows are two numbers, as in 4x2');
        const columns = within(Number(grid[1]), STEP_SETTINGS.picture.columns);
        const rows = within(Number(grid[2]), STEP_SETTINGS.picture.rows);
        return {
          text: `picture: ${columns} columns, ${rows} rows`,
          run: (tools) => {
            const id = stepIn(tools);
            for (const [setting, value] of Object.entries({ columns, rows }))
              tools.changeSetting(addressOf(id, setting), 'set columns and rows', (target) => {
                (target as NumberSetting).base = { kind: 'fixed', value };
              });
            tools.leadTo('appearance', formatAddress(addressOf(id, 'columns')));
          },
        };
      },
    },
  ];
}
