import { addReady as addReadyLayer, READY_MESH, type ReadyKind } from '@jinx/core/building';
import { copiedLayer, listed, moved, newLayer, removeLayer, withItem } from '@jinx/core/document';
import {
  groupLayers,
  layersWithin,
  mayHold,
  mirrorGroup,
  mirrorLayer,
  moveGroup,
  moveLayer,
  ungroup,
} from '@jinx/core/editing';
import { restExtent } from '@jinx/core/geometry';
import { message } from 'ant-design-vue';
import type { AssetSummary } from '../../api';
import type { Engine } from '../../engine/engine';
import { firstBlade } from '../values/blade';
import { random32, useEffectStore } from '../../stores/effect';

type Flag = 'hidden' | 'solo' | 'locked';
const FLAG_LABELS: Record<Flag, string> = { hidden: 'hide layers', solo: 'see layers alone', locked: 'lock layers' };

/** What is done with rows: to the chosen layers together, where the one it is asked of is among them. */
export function useLayerActs(engine: Engine, takeFromKit: (file: string) => Promise<AssetSummary | null>) {
  const store = useEffectStore();
  /** The layers that an act on one of them is meant for. */
  const meant = (id: string): readonly string[] => (store.chosenIds.includes(id) ? store.chosenIds : [id]);

  function add(): void {
    const id = store.newId();
    store.change('add a layer', (draft) => {
      const layer = newLayer(`Layer ${draft.layers.order.length + 1}`, random32());
      draft.layers = withItem(draft.layers, id, layer, 0);
    });
    store.chosenId = id;
    store.leadTo('source');
  }
  /** Adds a layer that is something at once, where the chosen one stands. */
  async function addReady(kind: ReadyKind): Promise<void> {
    const file = READY_MESH[kind];
    // What has to be taken in first cannot be seen before.
    if (file && store.isTrying()) return;
    const taken = file ? await takeFromKit(file) : null;
    const [id, needId] = [store.newId(), store.newId()];
    const [first] = store.effect!.stage.things.order;
    const rig = first === undefined ? undefined : engine.rigs.value.get(first);
    store.change('add a layer', (draft) =>
      addReadyLayer(draft, id, kind, {
        salt: random32(),
        beside: store.chosenId,
        blade: firstBlade(engine.rigs.value),
        mesh: taken && { asset: taken.hash, name: taken.name },
        ...(rig ? { tall: restExtent(rig.mesh.positions).high[1] } : {}),
        needId,
      }),
    );
    store.chosenId = id;
  }
  /** Copies, each in front of what it is a copy of, and chooses them. */
  function copy(id: string, isMirrored = false): void {
    const made = meant(id).map((from) => ({ from, to: store.newId() }));
    store.change(isMirrored ? 'duplicate layers, mirrored' : 'duplicate layers', (draft) => {
      for (const { from, to } of made) {
        const layer = draft.layers.byId[from]!;
        const name = `${layer.name}, ${isMirrored ? 'mirrored' : 'copy'}`.slice(0, 80);
        const copied = { ...copiedLayer(layer, name, random32()), locked: false };
        draft.layers = withItem(draft.layers, to, copied, draft.layers.order.indexOf(from));
        if (isMirrored) mirrorLayer(draft, to, engine.rigs.value);
      }
    });
    store.choose(made.map(({ to }) => to));
  }
  const remove = (id: string) =>
    store.change('delete layers', (draft) => {
      for (const one of meant(id)) removeLayer(draft, one);
    });
  /** Sets all of them as the first is not. */
  const flip = (id: string, flag: Flag) =>
    store.change(FLAG_LABELS[flag], (draft) => {
      const to = !draft.layers.byId[id]![flag];
      for (const one of meant(id)) draft.layers.byId[one]![flag] = to;
    });
  const move = (id: string, to: number) =>
    store.change(
      'reorder layers',
      (draft) => (draft.layers = moved(draft.layers, id, Math.max(0, Math.min(draft.layers.order.length - 1, to)))),
    );
  /** Puts a layer at a place among the others, and those meant with it into a group, or out of all. */
  function place(id: string, to: number, parent: string | null): void {
    if (store.effect!.layers.byId[id]!.parent === parent) return move(id, to);
    putLayers(id, parent, to);
  }
  const moveBy = (id: string, by: number) => move(id, store.effect!.layers.order.indexOf(id) + by);

  function group(id: string): void {
    const made = store.newId();
    const layers = meant(id);
    store.change('group layers', (draft) =>
      groupLayers(draft, layers, made, `Group ${draft.groups.order.length + 1}`),
    );
    store.chooseGroup(made);
  }
  /** Puts them into a group, or out of all, and says so. */
  function putLayers(id: string, parent: string | null, to: number | null = null): void {
    store.change(parent === null ? 'take layers out of their group' : 'put layers in a group', (draft) => {
      for (const one of meant(id)) moveLayer(draft, one, parent);
      if (to !== null) draft.layers = moved(draft.layers, id, to);
    });
    const { layers, groups } = store.effect!;
    const names = meant(id).map((one) => layers.byId[one]!.name);
    const home = parent === null ? 'in no group' : `in ${groups.byId[parent]!.name}`;
    void message.success({ content: `${names.join(', ')}: ${home} now.`, key: 'group' });
  }
  const putGroup = (id: string, parent: string | null) =>
    mayHold(store.effect!, parent, id) && store.change('move a group', (draft) => moveGroup(draft, id, parent));
  const takeApart = (id: string) => store.change('take a group apart', (draft) => ungroup(draft, id));
  const removeGroup = (id: string) =>
    store.change('delete a group', (draft) => {
      for (const layer of layersWithin(draft, id)) removeLayer(draft, layer);
      const inner = (at: string): string[] => [
        at,
        ...draft.groups.order.filter((other) => draft.groups.byId[other]!.parent === at).flatMap(inner),
      ];
      for (const one of inner(id).reverse()) ungroup(draft, one);
    });

  const mirror = (id: string) =>
    store.change('mirror layers', (draft) => {
      for (const one of meant(id)) mirrorLayer(draft, one, engine.rigs.value);
    });
  const mirrorAll = (id: string) =>
    store.change('mirror a group', (draft) => mirrorGroup(draft, id, engine.rigs.value));

  /** Groups that layers or a group may be put into, each under a value to choose it by. */
  const homes = (except: string | null = null) =>
    listed(store.effect!.groups)
      .filter(({ id }) => except === null || mayHold(store.effect!, id, except))
      .map(({ id, item }) => ({ value: `into ${id}`, text: `put in ${item.name}`, group: id }));

  return {
    add,
    addReady,
    copy,
    remove,
    flip,
    place,
    moveBy,
    group,
    putLayers,
    putGroup,
    takeApart,
    removeGroup,
    mirror,
    mirrorAll,
    homes,
  };
}
export type LayerActs = ReturnType<typeof useLayerActs>;
