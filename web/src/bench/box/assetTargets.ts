import { newDrawn, withItem, type Effect, type Id, type Thing } from '@jinx/core/document';
import type { AssetSummary } from '../../api';
import { showPicture } from '../values/pictures';
import { placeThing } from '../values/things';
import type { Target } from './target';

/** Lets a layer be drawn as a mesh: as one mesh more where it is drawn as meshes already. */
function drawMesh(draft: Effect, layerId: Id, { hash, name }: AssetSummary, newId: Id): void {
  const layer = draft.layers.byId[layerId];
  if (!layer) return;
  if (layer.drawn.kind !== 'mesh') layer.drawn = newDrawn('mesh');
  if (layer.drawn.kind === 'mesh')
    layer.drawn.meshes = withItem(layer.drawn.meshes, newId, { asset: hash, name, chance: 1 });
}

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
                tools.change(`show ${name}`, (draft) => showPicture(draft, layer.id, asset, tools.newId()));
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
                tools.change(`draw ${name}`, (draft) => drawMesh(draft, layer.id, asset, tools.newId()));
                tools.leadTo('appearance', null, 'drawn as');
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
