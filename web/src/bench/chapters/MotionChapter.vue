<script setup lang="ts">
import { Button } from 'ant-design-vue';
import {
  areShapedBy,
  FORCE_KINDS,
  FORCES,
  forceOfKind,
  forcesOn,
  settingsOfLayer,
  type ForceKind,
  type Place,
} from '@jinx/core/document';
import { computed, inject, provide } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useForceActs } from '../acts/useForceActs';
import { DRAGS, ENGINE } from '../bench';
import { changeForce, forceAddress, removeForce } from './changeForce';
import MuteButton from '../chips/MuteButton.vue';
import MenuButton from '../chips/MenuButton.vue';
import PlaceWords from '../chips/PlaceWords.vue';
import SettingChip from '../chips/SettingChip.vue';
import { copiedOf } from '../values/copied';
import { useSettingClip } from '../values/useSettingClip';
import ChapterHead from './ChapterHead.vue';
import ForceWords from './ForceWords.vue';
import MetWords from './MetWords.vue';
import SharedWords from './SharedWords.vue';

const KINDS = FORCE_KINDS.map((kind) => ({
  value: kind,
  text: FORCES[kind].name,
  otherWords: FORCES[kind].otherWords,
})).sort((a, b) => (a.text < b.text ? -1 : 1));
const store = useEffectStore();
const engine = inject(ENGINE)!;
// While a source or a force is being dragged, the other layers stand at their fullest.
provide(DRAGS, (isDragged) => engine.simulation.compare(isDragged ? store.chosenId : null));
const layer = computed(() => store.chosen!);
/** The layer's own forces, then those of the effect that act on it. */
const forces = computed(() => forcesOn(store.effect!, store.chosenId));
/** Out is no axis: it is another way for each. */
const MORE_WAYS = {
  out: () =>
    store.changeLayers(
      'leave outward',
      (own) => (own.settings['motion.launch'].base = { kind: 'fixed', value: 'outward' }),
    ),
};
const launch = computed(() => layer.value.settings['motion.launch'].base.value);
/** Whether anything of the layer is shaped by how far it is from its aim. */
const readsAim = computed(() =>
  settingsOfLayer(store.effect!, store.chosenId).some(({ setting }) => areShapedBy({ setting }, ['aimDistance'])),
);
const setAim = (aim: Place, gesture: string | null) =>
  store.changeLayers('place the aim', (target) => (target.aim = aim), gesture);

const { add } = useForceActs();
const { copyForce, pasteForceHere } = useSettingClip();
const copied = computed(() => copiedOf('force'));
const addressOf = ({ id, isShared }: (typeof forces.value)[number]) => forceAddress(store.chosenId, id, isShared);
const remove = (force: (typeof forces.value)[number]) => removeForce(store, addressOf(force));
const mute = (force: (typeof forces.value)[number], muted: boolean) =>
  changeForce(
    store,
    muted ? 'mute a force' : 'unmute a force',
    addressOf(force),
    (changed) => (changed.muted = muted),
  );
const become = (of: (typeof forces.value)[number], kind: string) =>
  changeForce(store, 'change the kind of a force', addressOf(of), (force) => {
    const made = forceOfKind(force, kind as ForceKind);
    Object.assign(force, { kind: made.kind, settings: made.settings });
  });
</script>

<template>
  <ChapterHead chapter="motion">
    <Button
      v-if="copied"
      type="link"
      :title="`Adds ${copied.name} to what is chosen`"
      @click="pasteForceHere(copied)"
    >
      Paste {{ copied.name }}
    </Button>
    <MenuButton label="Add a force" :choices="KINDS" previews @choose="add($event as ForceKind)" />
  </ChapterHead>
  <p>
    They leave <SettingChip setting="motion.launch" />
    <SettingChip v-if="launch === 'axis'" setting="motion.axis" label="launch axis" :more-ways="MORE_WAYS" />
    <template v-if="launch === 'tangent'">turned by <SettingChip setting="motion.angle" /></template>
    <template v-if="launch === 'toward' || launch === 'round'"
      >at <PlaceWords :place="layer.aim" label="aim" @change="setAim"
    /></template>
    <template v-if="launch === 'round'"
      >, on the axis <SettingChip setting="motion.axis" label="launch axis"
    /></template>
    at <SettingChip setting="motion.speed" />, up to <SettingChip setting="motion.opening" /> aside, keeping
    <SettingChip setting="motion.inherit" /> of the source's own speed, with
    <SettingChip setting="motion.velocity" /> beside.
  </p>
  <p v-if="readsAim && launch !== 'toward' && launch !== 'round'">
    Its aim, whose distance shapes it, is at <PlaceWords :place="layer.aim" label="aim" @change="setAim" />.
  </p>
  <p>
    They ride along <SettingChip setting="motion.ride" /><span v-if="forces.length === 0" class="quiet"
      >, and keep the speed they left with</span
    >.
  </p>
  <p
    v-for="force in forces"
    :key="force.id"
    class="force"
    :class="{ muted: force.item.muted }"
    :data-force="force.item.kind"
  >
    <ForceWords :id="force.id" :force="force.item" :is-shared="force.isShared" />
    <SharedWords :id="force.id" :is-shared="force.isShared" />
    <span class="acts">
      <MuteButton :muted="force.item.muted" :what="FORCES[force.item.kind].name" @mute="mute(force, $event)" />
      <Button
        v-if="!force.isShared"
        type="text"
        :aria-label="`Copy ${FORCES[force.item.kind].name}`"
        title="Copy this force, for other layers and effects"
        @click="copyForce(force.id, `${FORCES[force.item.kind].name} of ${layer.name}`)"
      >
        copy
      </Button>
      <MenuButton
        label="turn into…"
        :choices="KINDS.filter(({ value }) => value !== force.item.kind)"
        previews
        @choose="become(force, $event)"
      />
      <Button
        type="text"
        title="Remove this force"
        :aria-label="`Remove ${FORCES[force.item.kind].name}`"
        @click="remove(force)"
      >
        ×
      </Button>
    </span>
  </p>
  <MetWords />
</template>

<style scoped>
.force .acts {
  opacity: 0.8;
  white-space: nowrap;
  font-size: 12.5px;
  text-decoration: none;
  display: inline-block;
}
.force:hover .acts,
.force:focus-within .acts {
  opacity: 1;
}
</style>
