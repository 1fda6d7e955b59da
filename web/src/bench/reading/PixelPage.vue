<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { STEP_NAMES, stepsOf, stepToChange } from '@jinx/core/document';
import { wholeOf } from '@jinx/core/editing';
import { brightnessOf } from '@jinx/core/maths';
import type { PixelColour, PixelLayer } from '@jinx/stage';
import { computed, inject, ref } from 'vue';
import { answered } from '../../engine/calls';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import { plainNumber } from '../entry/numbers';
import { doneTo, seenHex } from './pixel';
import { pickOne, useProbe } from './probe';
import { usePixel } from './usePixel';

/** One pixel of the stage taken apart: which layers made it, with which particles and steps of their looks. */
const store = useEffectStore();
const engine = inject(ENGINE)!;
const probe = useProbe();
const opened = ref<string | null>(null);
const { pixel, steps, isBusy } = usePixel(engine, probe, opened);
const exposure = computed(() => store.effect!.stage.lens.exposure);
const swatch = (colour: PixelColour) => ({ background: seenHex(colour, exposure.value) });

/** From front to back, as the rows of the rulers stand; a linked effect's layers are told, and left alone. */
const rows = computed(() => {
  const { layers } = wholeOf(store.effect!).effect;
  const idOf = (salt: number) => layers.order.find((id) => layers.byId[id]!.salt === salt);
  return [...(pixel.value?.layers ?? [])].reverse().flatMap((told) => {
    const id = idOf(told.salt);
    if (!id) return [];
    const isOwn = id in store.effect!.layers.byId;
    return [{ ...told, id, isOwn, layer: layers.byId[id]!, words: doneTo(told.before, told.after) }];
  });
});
/** The steps of the opened layer's look, those that are muted too. */
const looked = computed(() => {
  const layer = store.effect!.layers.byId[opened.value ?? ''];
  if (!layer) return [];
  return stepsOf(store.effect!, layer).map(({ id, item }) => ({
    id,
    name: STEP_NAMES[item.kind],
    muted: item.muted,
    colour: steps.value?.find(({ step }) => step === id)?.colour ?? null,
  }));
});

function choose(id: string): void {
  store.choose([id]);
  store.page = 'pixel';
}
const hide = (id: string) => store.change('hide a layer', (draft) => (draft.layers.byId[id]!.hidden = true));
/** Layers that were hidden, so that what is taken out of the pixel can be put back from here. */
const hidden = computed(() =>
  store.effect!.layers.order.flatMap((id) => {
    const { hidden: isHidden, name } = store.effect!.layers.byId[id]!;
    return isHidden ? [{ id, name }] : [];
  }),
);
const show = (id: string) => store.change('show a layer', (draft) => (draft.layers.byId[id]!.hidden = false));
const muteStep = (layerId: string, stepId: string, muted: boolean) =>
  store.change(muted ? 'mute a step' : 'unmute a step', (draft) => {
    const step = stepToChange(draft, layerId, stepId);
    if (step) step.muted = muted;
  });
async function underGlass({ id }: { id: string }, row: number): Promise<void> {
  const answer = await answered(engine.simulation.census(id));
  const key = answer?.census.keys[row];
  if (key === undefined) return;
  [probe.layerId, probe.key] = [id, key];
  store.page = 'probe';
}
/** What a layer gives to the pixel so far: how much it covers, or for what covers nothing the light it adds. */
function given(colour: PixelColour): string {
  const covers = Math.round(colour[3] * 100);
  return covers > 0 ? `covers ${covers}%` : `adds ${plainNumber(brightnessOf(colour))}`;
}
const particleWords = ({ particles, isAll }: PixelLayer) =>
  `${isAll ? '' : 'at least '}${particles!.length} ${particles!.length === 1 ? 'particle' : 'particles'}`;
function leave(): void {
  probe.pixel = null;
  probe.isPicking = null;
  store.page = 'layers';
}
</script>

<template>
  <h2 class="page-name">One pixel</h2>
  <div class="page" :aria-busy="isBusy">
    <p v-if="!probe.pixel">
      Stop at an instant, and press a pixel of the stage: what made it is told here.
      <Button type="link" @click="pickOne(engine, probe, 'pixel')">Pick one on the stage</Button>
    </p>
    <template v-else>
      <p>
        From front to back; light is told as a share of the screen’s white.
        <Button type="link" @click="pickOne(engine, probe, 'pixel')">Pick another</Button>
      </p>
      <p v-if="!pixel" class="quiet">
        {{ engine.state.isPlaying ? 'Stop, and it is taken apart.' : 'Taking it apart…' }}
      </p>
      <ol v-else class="made">
        <li v-for="row in rows" :key="row.id" :data-made="row.layer.name">
          <span class="swatch" :style="swatch(row.after)" aria-hidden="true"></span>
          <div>
            <Button v-if="row.isOwn" type="link" class="name" title="Choose this layer" @click="choose(row.id)">
              {{ row.layer.name }}
            </Button>
            <span v-else class="name" title="A layer of a linked effect">{{ row.layer.name }}</span>
            <span class="number">{{ row.words }}</span>
            <div v-if="row.isOwn && row.particles?.length">
              <span class="number">with {{ particleWords(row) }}:</span>
              <Button
                v-for="(particle, n) in row.particles"
                :key="particle"
                type="link"
                class="number"
                :aria-label="`particle ${n + 1} of ${row.layer.name}`"
                :title="n === 0 ? 'Put the one drawn first under the glass' : 'Put this one under the glass'"
                @click="underGlass(row, particle)"
              >
                {{ n + 1 }}
              </Button>
            </div>
            <span v-if="row.isOwn" class="acts">
              <Button
                type="link"
                :aria-expanded="opened === row.id"
                @click="opened = opened === row.id ? null : row.id"
              >
                Its look, step by step
              </Button>
              <Button type="link" @click="hide(row.id)">Hide it</Button>
            </span>
            <ul v-if="opened === row.id" class="steps">
              <li v-for="step in looked" :key="step.id" :data-step="step.name" :class="{ muted: step.muted }">
                <span v-if="step.colour" class="swatch small" :style="swatch(step.colour)" aria-hidden="true"></span>
                <span v-else class="swatch small none" aria-hidden="true"></span>
                <span class="what">{{ step.name }}</span>
                <span v-if="step.colour" class="quiet number">{{ given(step.colour) }}</span>
                <Button type="link" @click="muteStep(row.id, step.id, !step.muted)">
                  {{ step.muted ? 'Unmute' : 'Mute' }}
                </Button>
              </li>
              <li v-if="looked.length === 0" class="quiet">Its look has no steps: it is a plain surface.</li>
            </ul>
          </div>
        </li>
        <li data-made="stage">
          <span class="swatch" :style="swatch(pixel.base)" aria-hidden="true"></span>
          <div>What stands behind them on the stage{{ rows.length === 0 ? ': no layer is seen here' : '' }}.</div>
        </li>
      </ol>
      <p v-if="hidden.length">
        Hidden:
        <Button v-for="{ id, name } in hidden" :key="id" type="link" @click="show(id)"> show {{ name }} </Button>
      </p>
    </template>
    <p><Button type="link" @click="leave">Put the glass away</Button></p>
  </div>
</template>

<style scoped>
.made,
.steps {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
.made > li {
  display: grid;
  grid-template-columns: 34px 1fr;
  gap: 10px;
  padding: 7px 0;
  border-top: 1px solid var(--rule);
}
.swatch {
  display: block;
  width: 34px;
  height: 34px;
  border: 1px solid var(--rule);
  border-radius: 3px;
}
.swatch.small {
  width: 18px;
  height: 18px;
}
.none {
  border-style: dashed;
}
.name {
  margin-right: 6px;
}
.acts {
  display: block;
  margin-top: 2px;
}
.steps li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 3px 0;
}
.steps .muted .what {
  text-decoration: line-through;
}
.what {
  min-width: 92px;
}
</style>
