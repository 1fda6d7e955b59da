import { withItem, type Id } from '@jinx/core/document';
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
