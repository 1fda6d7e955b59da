<script setup lang="ts">
import { Button } from 'ant-design-vue';
import {
  STEP_NAMES,
  STEP_OTHER_WORDS,
  collectionOf,
  listed,
  nameLook,
  ownLook,
  MOST_STEPS,
  STEP_KINDS,
  stepsOf,
  structuredCopy,
  useLook as takeLook,
  usersOf,
  withItem,
  type Id,
  type Step,
  type StepKind,
  type Tier,
} from '@jinx/core/document';
import { computed, inject, onBeforeUnmount } from 'vue';
import { useEffectStore } from '../../../stores/effect';
import { useStepActs } from '../../acts/useStepActs';
import { ALONE } from '../../bench';
import { choicePicture } from '../../choices/choicePictures';
import { copiedStep } from '../../values/copied';
import { inOrder } from '../../chips/dragging';
import DraggedList from '../../chips/DraggedList.vue';
import DragGrip from '../../chips/DragGrip.vue';
import MuteButton from '../../chips/MuteButton.vue';
import ChoiceChip from '../../chips/ChoiceChip.vue';
import MenuButton from '../../chips/MenuButton.vue';
import TextField from '../../chips/TextField.vue';
import { asTier, FROM_CHOICES } from '../../quality/tiers';
import { WITHOUT_STEPS } from './ribbonWords';
import StepPicture from './StepPicture.vue';
import StepWords from './StepWords.vue';

/** The look of the chosen layer: its steps in the order in which they act, or the named look it uses. */
const store = useEffectStore();
const alone = inject(ALONE)!;
const layer = computed(() => store.chosen!);
const steps = computed(() => stepsOf(store.effect!, layer.value));
const named = computed(() =>
  layer.value.look.kind === 'named'
    ? { id: layer.value.look.look, ...store.effect!.looks.byId[layer.value.look.look]! }
    : null,
);
const others = computed(() =>
  named.value ? usersOf(store.effect!, named.value.id).filter((id) => id !== store.chosenId) : [],
);
const changed = computed(() =>
  layer.value.look.kind === 'named'
    ? Object.values(layer.value.look.changes).reduce((sum, names) => sum + Object.keys(names).length, 0)
    : 0,
);
/** What is seen without any step. */
const plain = computed(() => {
  const { kind } = layer.value.drawn;
  return WITHOUT_STEPS[kind in WITHOUT_STEPS ? (kind as keyof typeof WITHOUT_STEPS) : 'other'];
});
onBeforeUnmount(() => (alone.value = null));

const { changeSteps, add, remove, mute } = useStepActs();
const all = computed(() => collectionOf(steps.value.map(({ id, item }) => [id, item])));
const order = (to: Id[]) => changeSteps('move a step of the look', (kept) => inOrder(kept, to));
const have = (id: string, least: Tier) =>
  changeSteps('set which qualities have a step', (all) => ({
    order: all.order,
    byId: { ...all.byId, [id]: { ...all.byId[id]!, least } },
  }));
const copy = (step: Step) => (copiedStep.value = structuredCopy(step));
const paste = () =>
  changeSteps('paste a step', (all) => withItem(all, store.newId(), structuredCopy(copiedStep.value!)));
const see = (id: string) => (alone.value = alone.value?.step === id ? null : { layer: store.chosenId, step: id });

const uses = computed(() => [
  ...listed(store.effect!.looks)
    .filter(({ id }) => id !== named.value?.id)
    .map(({ id, item }) => ({ value: id, text: item.name })),
]);
const giveName = () =>
  store.change('name the look', (draft) =>
    nameLook(draft, store.chosenId, store.newId(), `${layer.value.name} look`),
  );
const rename = (text: string) => {
  const name = text.trim().slice(0, 80);
  if (name && named.value) store.change('rename a look', (draft) => (draft.looks.byId[named.value!.id]!.name = name));
};
const take = (id: string) => store.change('use a look', (draft) => takeLook(draft, store.chosenId, id));
const goOwnWay = () => store.change('give the layer a look of its own', (draft) => ownLook(draft, store.chosenId));
const choices = STEP_KINDS.map((kind) => ({
  value: kind,
  text: STEP_NAMES[kind],
  picture: choicePicture('step', kind),
  otherWords: STEP_OTHER_WORDS[kind],
}));
</script>

<template>
  <p v-if="named" class="look">
    Uses
    <TextField class="chip name" :value="named.name" aria-label="name of the look" maxlength="80" @commit="rename" />
    <span class="quiet">
      {{
        others.length === 0
          ? 'with no other layer.'
          : `with ${others.map((id) => store.effect!.layers.byId[id]!.name).join(', ')}: a change here is a change there.`
      }}
      {{ changed > 0 ? `${changed} of its numbers ${changed === 1 ? 'differs' : 'differ'} in this layer.` : '' }}
    </span>
    <Button type="link" @click="goOwnWay">Make it this layer’s own</Button>
    <MenuButton v-if="uses.length" label="Another look…" :choices="uses" previews @choose="take" />
  </p>
  <p v-else class="look">
    <Button type="link" title="Under a name, other layers can use it too" @click="giveName"> Name it </Button>
    <MenuButton v-if="uses.length" label="Use a look…" :choices="uses" previews @choose="take" />
  </p>
  <p v-if="steps.length === 0" class="quiet">No step: {{ plain }}.</p>
  <DraggedList class="steps" tag="ol" :all="all" @order="order">
    <li v-for="{ id, item } in steps" :key="id" :class="{ muted: item.muted }" :data-step="item.kind">
      <StepPicture :step-id="id" :name="STEP_NAMES[item.kind]" :muted="item.muted" />
      <div class="words">
        <div class="head">
          <DragGrip :id="id" :name="STEP_NAMES[item.kind]" :all="all" @order="order" />
          <span class="kind">{{ STEP_NAMES[item.kind] }}</span>
          <span class="acts">
            <MuteButton :muted="item.muted" :what="STEP_NAMES[item.kind]" @mute="mute(id, $event)" />
            <Button
              type="text"
              :class="{ on: alone?.step === id }"
              :aria-pressed="alone?.step === id"
              title="See this step alone on the stage"
              :aria-label="`See ${STEP_NAMES[item.kind]} alone`"
              @click="see(id)"
            >
              alone
            </Button>
            <Button
              type="text"
              title="Copy this step, for other looks"
              :aria-label="`Copy ${STEP_NAMES[item.kind]}`"
              @click="copy(item)"
            >
              copy
            </Button>
            <Button
              type="text"
              title="Remove this step"
              :aria-label="`Remove ${STEP_NAMES[item.kind]}`"
              @click="remove(id)"
            >
              ×
            </Button>
          </span>
        </div>
        <StepWords :id="id" :step="item" />
        <span class="quiet">
          In
          <ChoiceChip
            :value="item.least"
            :choices="FROM_CHOICES"
            :label="`which qualities have ${STEP_NAMES[item.kind]}`"
            @choose="have(id, asTier($event))"
          />.
        </span>
      </div>
    </li>
  </DraggedList>
  <p>
    <MenuButton
      v-if="steps.length < MOST_STEPS"
      label="Add a step"
      :choices="choices"
      previews
      @choose="add($event as StepKind)"
    />
    <Button v-if="copiedStep && steps.length < MOST_STEPS" type="link" @click="paste">
      Paste {{ STEP_NAMES[copiedStep.kind].toLowerCase() }}
    </Button>
    <span v-if="steps.length >= MOST_STEPS" class="quiet">{{ MOST_STEPS }} steps are the most a look has.</span>
  </p>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
}
.steps li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr);
  gap: 8px;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
  line-height: 25px;
}
.head {
  display: flex;
  align-items: center;
}
.kind {
  font-weight: 600;
}
.acts {
  margin-left: auto;
  font-size: 12.5px;
  white-space: nowrap;
  line-height: 20px;
}
.acts .ant-btn {
  padding: 0 3px;
}
.muted .kind,
.muted .words > :not(.head) {
  text-decoration: line-through;
  opacity: 0.7;
}
.name {
  width: 150px;
}
.look {
  line-height: 22px;
}
</style>
