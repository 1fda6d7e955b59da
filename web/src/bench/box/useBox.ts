import type { Id } from '@jinx/core/document';
import { lifetimes } from '@jinx/core/checks';
import { computed, inject, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { EffectSummary } from '../../api';
import type { ToldFinding } from '../../engine/checksWorker';
import { useEffectStore } from '../../stores/effect';
import { useAssetActs } from '../acts/useAssetActs';
import { useBurstActs } from '../acts/useBurstActs';
import { useDrawnActs } from '../acts/useDrawnActs';
import { useFitActs } from '../acts/useFitActs';
import { useForceActs } from '../acts/useForceActs';
import { useLinkActs } from '../acts/useLinkActs';
import { useSourceActs } from '../acts/useSourceActs';
import { useStepActs } from '../acts/useStepActs';
import { useSurfaceActs } from '../acts/useSurfaceActs';
import { ASSETS, ENGINE, LAYER_ACTS } from '../bench';
import { changeForce, removeForce } from '../chapters/changeForce';
import { guideTargets } from '../../guide/box';
import { injectCommands } from '../commands/registry';
import { Finder } from '../pick/finder';
import { changeSetting } from '../values/changeSetting';
import { suggestionsFor, type Suggestion } from './line';
import type { Addable, Target, Tools } from './target';
import { targetsOf } from './targets';

/** How long figures that are being taken in are waited for, in milliseconds. */
const MOST_WAITING = 6000;

/** A control of the bench by what it is called: by its label, else by the words on it. */
const controlCalled = (name: string): HTMLElement | undefined =>
  document.querySelector<HTMLElement>(`[aria-label^="${CSS.escape(name)}"]`) ??
  [...document.querySelectorAll('button')].find((button) => button.textContent.trim() === name);

/** What the box of the bench finds, and how what it finds is carried out. */
export function useBox(
  found: () => readonly ToldFinding[],
  effects: () => readonly EffectSummary[],
  lead: (finding: ToldFinding) => void,
) {
  const store = useEffectStore();
  const engine = inject(ENGINE)!;
  const assets = inject(ASSETS)!;
  const router = useRouter();
  const commands = injectCommands();
  const layers = inject(LAYER_ACTS)!;
  const forces = useForceActs();
  const steps = useStepActs();
  const sources = useSourceActs();
  const drawn = useDrawnActs();
  const surfaces = useSurfaceActs();
  const links = useLinkActs();
  const bursts = useBurstActs();
  const pictures = useAssetActs(engine);
  const fits = useFitActs(engine);

  /** Where the last thing that was carried out leads: gone to once the box is closed. */
  let leads: (() => void) | null = null;
  const leadTo: Tools['leadTo'] = (...where) => void (leads = () => store.leadTo(...where));
  const focus: Tools['focus'] = (label) => void (leads = () => controlCalled(label)?.focus());
  function goThere(): void {
    const last = leads;
    leads = null;
    if (last) window.setTimeout(last);
  }

  function add(what: Addable): Id | null {
    switch (what.kind) {
      case 'force': {
        const id = forces.add(what.of);
        leadTo('motion', null, `${what.of}, `);
        return id;
      }
      case 'step':
        leadTo('appearance');
        return steps.add(what.of);
      case 'source':
        sources.choose(what.of);
        leadTo('source', null, 'source');
        return null;
      case 'drawn':
        drawn.choose(what.of);
        leadTo('appearance', null, 'drawn as');
        return null;
      case 'surface':
        leadTo('motion');
        return surfaces.add(what.of);
      case 'link':
        leadTo('links');
        return what.of === null ? links.setOffNew() : links.setOff(what.of);
      case 'burst':
        bursts.add();
        leadTo('births', null, 'burst count');
        return null;
      case 'ready':
        void layers.addReady(what.of);
        return null;
      case 'layer':
        layers.add();
        return null;
    }
  }
  const tools: Tools = {
    effect: () => store.effect!,
    chosenId: () => store.chosenId,
    chosenIds: () => store.openIds(store.effect!),
    newId: () => store.newId(),
    life: () => lifetimes(store.effect!, store.chosenId)[1],
    change: (label, recipe) => store.change(label, recipe),
    changeLayers: (label, recipe) => store.changeLayers(label, recipe),
    changeSetting: ({ setting, ...address }, label, recipe) =>
      changeSetting(store, address as never, setting, label, (target, _, draft) => recipe(target, draft)),
    changeForce: (label, address, recipe) => changeForce(store, label, address, recipe),
    removeForce: (address) => removeForce(store, address),
    muteStep: steps.mute,
    removeStep: steps.remove,
    leadTo,
    focus,
    showWhole: () => (store.page = 'effect'),
    add,
    fit: fits.fitTo,
    showPicture: (asset) => pictures.show(asset),
    command: (id) => void commands.run(id),
  };

  /** Everything that can be found now: made anew only when something of it has changed. */
  const finder = computed(
    () =>
      new Finder<Target>(
        targetsOf({
          effect: store.effect!,
          layerId: store.chosenId,
          chosenIds: store.chosenIds,
          fits: fits.targets.value,
          rigs: engine.rigs.value,
          surfaces: surfaces.choices.value,
          assets: assets.value,
          commands: commands.all,
          keysOf: (id) => commands.keysOf(id),
          findings: found(),
          guide: guideTargets.value,
          effects: effects().filter(({ id }) => id !== store.id),
          choose: (id) => store.choose([id]),
          open: (id) => void router.push(`/effects/${id}`),
          lead,
        }),
      ),
  );

  /** What one part of a line can mean. */
  const suggest = (part: string): Suggestion[] => suggestionsFor(part, finder.value, tools);

  /** Resolves once the figures of the stage are here, with their bones and clips; or after a while without them. */
  async function ready(): Promise<void> {
    const isHere = () => store.effect!.stage.things.order.every((id) => engine.rigs.value.has(id));
    if (isHere()) return;
    await new Promise<void>((resolve) => {
      const end = () => {
        stop();
        window.clearTimeout(timer);
        resolve();
      };
      const timer = window.setTimeout(end, MOST_WAITING);
      const stop = watch([engine.rigs, () => store.effect], () => isHere() && end());
    });
  }
  return { suggest, ready, goThere, tools };
}
