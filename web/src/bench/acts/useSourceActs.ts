import {
  atEffect,
  emptyCollection,
  SHAPE_KINDS,
  SHAPES,
  type Place,
  type Source,
  type SourceKind,
  type Vector,
} from '@jinx/core/document';
import { useEffectStore } from '../../stores/effect';
import type { PickItem } from '../pick/pick';
import { choicePicture } from '../choices/choicePictures';
import { layersBefore, layersWithMesh } from '../values/linkable';

const KINDS: readonly (PickItem & { readonly value: SourceKind })[] = [
  ...SHAPE_KINDS.map((value) => ({ value, text: SHAPES[value].words, otherWords: SHAPES[value].otherWords })),
  { value: 'path', text: 'along a drawn path', otherWords: ['spline', 'curve', 'path'] },
  { value: 'mesh', text: 'on a mesh of the stage', otherWords: ['mesh surface', 'skin', 'skinned mesh', 'body'] },
  { value: 'bones', text: 'on bones', otherWords: ['skeleton', 'joints', 'bone'] },
  {
    value: 'drawn',
    text: 'on the mesh of a layer',
    otherWords: ['drawn mesh', 'mesh of another layer', 'shell', 'emit from mesh particle'],
  },
  { value: 'particles', text: 'on particles', otherWords: ['other particles', 'from another layer'] },
  { value: 'hits', text: 'by hits', otherWords: ['impacts', 'contact points', 'blows'] },
];
/** What particles can be born on, each with its small picture. */
export const SOURCE_KINDS = KINDS.map((kind) => ({ ...kind, picture: choicePicture('source', kind.value) }));
/** A first path to bend: a low wave a metre and a half long. */
const START_PATH: readonly Vector[] = [
  [-0.75, 0, 0],
  [-0.25, 0.35, 0],
  [0.25, -0.35, 0],
  [0.75, 0, 0],
];

/** Gives the chosen layers another source. */
export function useSourceActs() {
  const store = useEffectStore();
  function choose(kind: SourceKind): void {
    const [figure = 'figure'] = store.effect!.stage.things.order;
    const parents = layersBefore(store.effect!, store.chosenId);
    const meshes = layersWithMesh(store.effect!, store.chosenId);
    store.changeLayers('choose the source', (target) => {
      const place: Place = 'place' in target.source ? target.source.place : atEffect([0, 1, 0]);
      const thing = 'thing' in target.source ? target.source.thing : figure;
      target.source = (
        kind === 'mesh' || kind === 'bones'
          ? { kind, thing, bones: [] }
          : kind === 'drawn'
            ? { kind, layer: meshes[0]?.value ?? store.chosenId }
            : kind === 'particles'
              ? { kind, layer: parents[0]?.value ?? store.chosenId }
              : kind === 'path'
                ? { kind, place, points: START_PATH.map((point) => [...point] as Vector), closed: false }
                : kind === 'hits'
                  ? { kind, hits: emptyCollection() }
                  : { kind, place }
      ) as Source;
    });
  }
  return { choose };
}
