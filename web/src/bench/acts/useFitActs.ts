import { listed } from '@jinx/core/document';
import { fitSource, type FitBox, type FitTarget } from '@jinx/core/editing';
import { boneExtent, restExtent } from '@jinx/core/geometry';
import { message } from 'ant-design-vue';
import { computed } from 'vue';
import type { Engine } from '../../engine/engine';
import { useEffectStore } from '../../stores/effect';
import type { PickItem } from '../pick/pick';

/** How a fit is written into a menu's value. */
const valueOf = (target: FitTarget, isShared: boolean): string => JSON.stringify({ target, isShared });

/** Fits the sources of the chosen layers to layers, figures and bones: place, turn and size. */
export function useFitActs(engine: Pick<Engine, 'rigs'>) {
  const store = useEffectStore();
  const targets = computed((): { target: FitTarget; text: string }[] => {
    const { layers, stage } = store.effect!;
    return [
      ...listed(layers)
        .filter(({ id, item }) => !store.chosenIds.includes(id) && ('place' in item.source || 'thing' in item.source))
        .map(({ id, item }) => ({ target: { kind: 'layer', layer: id } as const, text: item.name })),
      ...listed(stage.things).flatMap(({ id, item }) => [
        { target: { kind: 'thing', thing: id } as const, text: item.name },
        ...(engine.rigs.value.get(id)?.bones ?? []).map(({ name }) => ({
          target: { kind: 'bone', thing: id, bone: name } as const,
          text: stage.things.order.length > 1 ? `${item.name}, ${name}` : name,
        })),
      ]),
    ];
  });
  const canFit = computed(() => targets.value.length > 0);
  /** All that can be fitted to: once, and for layers and figures by measures that are shared. */
  const choices = (): PickItem[] => [
    ...targets.value.map(({ target, text }) => ({ value: valueOf(target, false), text, group: 'once' })),
    ...targets.value
      .filter(({ target }) => target.kind !== 'bone')
      .map(({ target, text }) => ({
        value: valueOf(target, true),
        text,
        otherWords: [`${text} shared`, `${text} measure`],
        group: 'its size as a shared measure',
        help: 'The size becomes a measure, which both have: changed once, it changes in both',
      })),
  ];

  function boxOf(target: FitTarget): FitBox | null {
    const layer = target.kind === 'layer' ? store.effect!.layers.byId[target.layer] : null;
    const thing =
      target.kind === 'layer' ? (layer && 'thing' in layer.source ? layer.source.thing : '') : target.thing;
    const rig = engine.rigs.value.get(thing);
    if (!rig) return null;
    return target.kind === 'bone' ? boneExtent(rig, target.bone) : restExtent(rig.mesh.positions);
  }
  function fit(value: string): void {
    const { target, isShared } = JSON.parse(value) as { target: FitTarget; isShared: boolean };
    const ids = [store.newId(), store.newId()];
    const name = targets.value.find((one) => valueOf(one.target, false) === valueOf(target, false))?.text ?? '';
    const stood = store.chosen && 'place' in store.chosen.source;
    store.change(`fit to ${name}`, (draft) => {
      for (const id of store.openIds(draft)) fitSource(draft, id, target, boxOf(target), isShared ? ids : null);
    });
    if (!stood && !store.previewed)
      void message.info(`${store.chosen?.name ?? 'It'} has no place of its own to be fitted.`);
  }
  return { canFit, choices, targets, fit, fitTo: (target: FitTarget) => fit(valueOf(target, false)) };
}
