import type { Id } from '@jinx/core/document';
import { lifetimes } from '@jinx/core/checks';
import { inject } from 'vue';
import { useRouter } from 'vue-router';
import type { EffectSummary } from '../../api';
import type { ToldFinding } from '../../engine/checksWorker';
import { useEffectStore } from '../../stores/effect';
import { useBurstActs } from '../acts/useBurstActs';
import { useDrawnActs } from '../acts/useDrawnActs';
import { useForceActs } from '../acts/useForceActs';
import { useLinkActs } from '../acts/useLinkActs';
import { useSourceActs } from '../acts/useSourceActs';
import { useStepActs } from '../acts/useStepActs';
import { useSurfaceActs } from '../acts/useSurfaceActs';
import { ENGINE } from '../bench';
import { injectCommands } from '../commands/registry';
import { Finder } from '../pick/finder';
import { useLayerActs } from '../rulers/useLayerActs';
import { changeSetting } from '../values/changeSetting';
import { partsOf, suggestionsFor, type Suggestion } from './line';
import type { Addable, Target, Tools } from './target';
import { targetsOf } from './targets';

/** What the box of the bench finds, and how what it finds is carried out. */
export function useBox(
  found: () => readonly ToldFinding[],
  effects: () => readonly EffectSummary[],
  lead: (finding: ToldFinding) => void,
) {
  const store = useEffectStore();
  const engine = inject(ENGINE)!;
  const router = useRouter();
  const commands = injectCommands();
  const layers = useLayerActs(engine);
  const forces = useForceActs();
  const steps = useStepActs();
  const sources = useSourceActs();
  const drawn = useDrawnActs();
  const surfaces = useSurfaceActs();
  const links = useLinkActs();
  const bursts = useBurstActs();

  function add(what: Addable): Id | null {
    switch (what.kind) {
      case 'force': {
        const id = forces.add(what.of);
        store.leadTo('motion', null, `${what.of}, `);
        return id;
      }
      case 'step':
        store.leadTo('appearance');
        return steps.add(what.of);
      case 'source':
        sources.choose(what.of);
        store.leadTo('source', null, 'source');
        return null;
      case 'drawn':
        drawn.choose(what.of);
        store.leadTo('appearance', null, 'drawn as');
        return null;
      case 'surface':
        surfaces.add(what.of);
        store.leadTo('motion');
        return null;
      case 'link':
        store.leadTo('links');
        return links.setOff(what.of);
      case 'burst':
        bursts.add();
        store.leadTo('births', null, 'burst count');
        return null;
      case 'ready':
        layers.addReady(what.of);
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
      changeSetting(store, address as never, setting, label, recipe),
    leadTo: (chapter, chip = null, label) => store.leadTo(chapter, chip, label),
    focus: (label) =>
      window.setTimeout(() => document.querySelector<HTMLElement>(`[aria-label^="${CSS.escape(label)}"]`)?.focus()),
    showWhole: () => (store.page = 'effect'),
    add,
    command: (id) => void commands.run(id),
  };

  /** Everything that can be found now. */
  const targets = (): Target[] =>
    targetsOf({
      effect: store.effect!,
      layerId: store.chosenId,
      rigs: engine.rigs.value,
      surfaces: surfaces.choices.value,
      commands: commands.all,
      findings: found(),
      effects: effects().filter(({ id }) => id !== store.id),
      choose: (id) => store.choose([id]),
      open: (id) => void router.push(`/effects/${id}`),
      lead,
    });

  /** What the last part of a line can mean. */
  const suggest = (line: string): Suggestion[] => suggestionsFor(partsOf(line).at(-1)!, new Finder(targets()), tools);

  /**
   * Carries out a line: of each part but the last the likeliest meaning, of the last the one that was chosen. All of it is one
   * step of undo. Returns why it could not be, with nothing done; '' where it was.
   */
  function carryOut(line: string, chosen: Suggestion): string {
    const before = partsOf(line)
      .slice(0, -1)
      .filter((part) => part.trim() !== '');
    let problem = '';
    const label = before.length > 0 ? `set ${before.length + 1} things` : null;
    store.together(label, () => {
      for (const part of before) {
        const [first] = suggestionsFor(part, new Finder(targets()), tools, 1);
        if (!first || first.problem !== '') {
          problem = first?.problem ?? `Nothing is called “${part.trim()}”`;
          return false;
        }
        first.run(tools);
      }
      const last = partsOf(line).at(-1)!;
      // What came before may have added what the last part is about.
      const again = before.length > 0 ? suggestionsFor(last, new Finder(targets()), tools) : [chosen];
      const now = again.find(({ id }) => id === chosen.id) ?? again[0];
      if (!now || now.problem !== '') {
        problem = now?.problem ?? `Nothing is called “${last.trim()}”`;
        return false;
      }
      now.run(tools);
      return true;
    });
    return problem;
  }
  return { suggest, carryOut, tools };
}
