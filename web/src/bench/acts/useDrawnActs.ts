import {
  atEffect,
  collectionOf,
  differencesOf,
  newDrawn,
  newRibbon,
  wordsOf,
  type DrawnAs,
  type Effect,
  type Id,
  type Layer,
  type Place,
} from '@jinx/core/document';
import { drawLayerAs, drawnNow } from '@jinx/core/editing';
import { message } from 'ant-design-vue';
import { inject } from 'vue';
import { useEffectStore } from '../../stores/effect';
import type { AssetSummary } from '../../api';
import type { Engine } from '../../engine/engine';
import { ENGINE } from '../bench';
import type { PickItem } from '../pick/pick';
import { firstBlade } from '../values/blade';

export const DRAWN_KINDS: readonly (PickItem & { readonly value: DrawnAs['kind'] })[] = [
  { value: 'sprite', text: 'sprites, each by itself', otherWords: ['billboards', 'quads', 'cards'] },
  { value: 'mesh', text: 'meshes', otherWords: ['3D models', 'geometry', 'mesh particles'] },
  { value: 'trail', text: 'trails behind them', otherWords: ['trail', 'ribbon trail', 'streaks'] },
  { value: 'strand', text: 'strands through them', otherWords: ['ribbon', 'connected ribbon', 'string'] },
  { value: 'blade', text: 'the sweep of a blade', otherWords: ['weapon trail', 'slash', 'swing trail'] },
  { value: 'beam', text: 'beams', otherWords: ['lightning', 'laser', 'electric arc', 'bolt'] },
  { value: 'light', text: 'lights', otherWords: ['point light', 'light source'] },
  {
    value: 'haze',
    text: 'haze that bends what is behind',
    otherWords: ['distortion', 'refraction', 'heat haze', 'bent air'],
  },
  {
    value: 'body',
    text: 'the skin of a figure',
    otherWords: ['material override', 'overlay on the character', 'flash on the body'],
  },
];

/** What a layer is given with how it is drawn, by the names it has in words. */
const DRESSING: ReadonlySet<string> = new Set(['blending', 'lit', 'facing', 'look']);

/** Lets the chosen layers be drawn as something else. */
export function useDrawnActs(engine: Pick<Engine, 'rigs'> = inject(ENGINE)!) {
  const store = useEffectStore();

  function made(kind: DrawnAs['kind'], layer: Layer): DrawnAs {
    if (kind === 'sprite') return { kind };
    if (kind === 'mesh' || kind === 'light' || kind === 'haze') return newDrawn(kind);
    if (kind === 'body') return newDrawn(kind, store.effect!.stage.things.order[0] ?? 'figure');
    const places: [Place, Place] =
      'from' in layer.drawn
        ? [layer.drawn.from, layer.drawn.to]
        : kind === 'blade'
          ? firstBlade(engine.rigs.value)
          : [atEffect([0, 1, 0]), atEffect([2, 1, 0])];
    return newRibbon(kind, ...places);
  }
  function drawAs(kind: DrawnAs['kind'], layer: Layer, id: Id, draft: Effect): void {
    if (layer.drawn.kind === kind) return;
    const key = (of: string) => `${store.id}/${id}/${of}`;
    store.drawnBefore.set(key(layer.drawn.kind), drawnNow(layer));
    drawLayerAs(draft, id, made(kind, layer), store.drawnBefore.get(key(kind)) ?? null);
  }
  /** Draws a layer as one mesh, whatever it was drawn as. */
  function drawMesh(layerId: Id, { hash, name }: Pick<AssetSummary, 'hash' | 'name'>): void {
    const [before, mesh] = [store.effect!, store.newId()];
    store.change(`draw ${name}`, (draft) => {
      const layer = draft.layers.byId[layerId];
      if (!layer) return;
      drawAs('mesh', layer, layerId, draft);
      const { drawn } = layer;
      if (drawn.kind === 'mesh') drawn.meshes = collectionOf([[mesh, { asset: hash, name, chance: 1 }]]);
    });
    if (!store.previewed && store.chosenId === layerId) tellDressing(before);
  }
  /** Each chosen layer is drawn as it was when it was drawn so last, or as a new one of that kind. */
  function choose(kind: DrawnAs['kind']): void {
    const before = store.effect!;
    store.changeLayers('choose how particles are drawn', (layer, id, draft) => drawAs(kind, layer, id, draft));
    if (!store.previewed && store.effect !== before) tellDressing(before);
  }
  /** Says what the chosen layer was given with it. */
  function tellDressing(before: Effect): void {
    const heading = store.chosen!.name;
    const said = differencesOf(wordsOf(before), wordsOf(store.effect!)).filter(
      (line) => line.heading === heading && line.name !== 'drawn as' && DRESSING.has(line.name),
    );
    const words = said.map(({ name, right }) => `${name} ${right ?? 'as it was'}`).join(', ');
    if (words)
      void message.info(
        { content: `Drawn so with what suits it: ${words}. Undo takes all of it back.`, key: 'drawn' },
        6,
      );
  }
  return { choose, drawMesh };
}
