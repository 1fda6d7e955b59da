import { withItem, type Id, type Thing } from '@jinx/core/document';
import type { AssetSummary } from '../../api';
import { placeThing } from '../values/things';
import type { Target } from './target';

/** The project's figures, meshes and pictures: put on the stage, or shown by the chosen layer. */
export const assetTargets = (assets: readonly AssetSummary[], layer: { id: Id; name: string } | null): Target[] =>
  assets.flatMap((asset): Target[] => {
    const { hash, name, kind } = asset;
    if (kind === 'picture')
      return layer
        ? [
            {
              id: `picture ${hash}`,
              text: `show ${name}`,
              otherWords: [name, `picture ${name}`, `texture ${name}`, `image ${name}`],
              detail: `a picture, for ${layer.name}`,
              previews: true,
              run: (tools) => {
                tools.showPicture(asset);
                tools.leadTo('appearance');
              },
            },
          ]
        : [];
    return [
      {
        id: `bring ${hash}`,
        text: `put ${name} on the stage`,
        otherWords: [`bring ${name}`, `stage ${name}`, `figure ${name}`, `character ${name}`],
        detail: 'a figure or prop',
        previews: true,
        run: (tools) =>
          tools.change(`put ${name} on the stage`, (draft) => placeThing(draft, name, hash, tools.newId())),
      },
      ...(layer
        ? [
            {
              id: `mesh ${hash}`,
              text: `draw ${name}`,
              otherWords: [`mesh ${name}`, `drawn as ${name}`, `model ${name}`],
              detail: `a mesh, for ${layer.name}`,
              previews: true,
              run: (tools: Parameters<Target['run']>[0]) => {
                tools.add({ kind: 'drawn', of: 'mesh' });
                const id = tools.newId();
                tools.changeLayers(`draw ${name}`, ({ drawn }) => {
                  if (drawn.kind === 'mesh')
                    drawn.meshes = withItem(drawn.meshes, id, { asset: hash, name, chance: 1 });
                });
              },
            },
          ]
        : []),
    ];
  });

/** What the figures of the stage do, by the names of their clips. */
export const clipTargets = (
  things: readonly { readonly id: Id; readonly item: Thing }[],
  clipsOf: (thing: Id) => readonly string[],
): Target[] =>
  things.flatMap(({ id, item }) =>
    clipsOf(id).map((clip): Target => ({
      id: `clip ${id} ${clip}`,
      text: `${item.name}: ${clip}`,
      otherWords: [`clip ${clip}`, clip, `animation ${clip}`, `${item.name} ${clip}`],
      detail: 'a clip',
      previews: true,
      run: ({ change }) =>
        change('choose the clip', (draft) => {
          const thing = draft.stage.things.byId[id];
          if (thing) thing.clip = clip;
        }),
    })),
  );
