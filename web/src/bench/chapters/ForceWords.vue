<script setup lang="ts">
import { FORCES, structuredCopy, type Declaration, type Force, type Place } from '@jinx/core/document';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import PlaceWords from '../chips/PlaceWords.vue';
import PlainChip from '../chips/PlainChip.vue';
import SettingChip from '../chips/SettingChip.vue';
import { changeForce, forceAddress } from './changeForce';
import { forceSentence, whereSentence } from './forceWords';
import { setTurnsASecond, turnsASecond } from './orbitTurns';

/** One force as sentences: what it does, and on whom and where. */
const props = defineProps<{ id: string; force: Force; isShared: boolean }>();
const store = useEffectStore();
/** A force of the chosen layer, or one of the effect's own. */
const of = computed(() => forceAddress(store.chosenId, props.id, props.isShared));
const setPlace = (place: Place, gesture: string | null) =>
  changeForce(store, 'place a force', of.value, (force) => (force.place = structuredCopy(place)), gesture);
const sentences = computed(() => [forceSentence(props.force), whereSentence(props.force)]);
const table = computed(() => FORCES[props.force.kind].settings as Record<string, Declaration>);
const name = computed(() => FORCES[props.force.kind].name.toLowerCase());
/** How often an orbit of one distance and one speed goes round in a second; null of anything else. */
const turns = computed(() => turnsASecond(props.force, store.effect!));
const setTurns = (value: number, gesture: string | null) =>
  changeForce(
    store,
    'set turns a second',
    of.value,
    (force) => setTurnsASecond(force, value, store.effect!),
    gesture,
  );
/** What has an axis, or is turned already, shows how it is turned. */
const isTurned = computed(() => 'axis' in table.value || props.force.place.turn.some((degrees) => degrees !== 0));
const labelOf = (setting: string) => `${name.value}, ${table.value[setting]!.name}`;
</script>

<template>
  <span v-for="(sentence, which) in sentences" :key="which" :class="{ where: which === 1 }">
    <template v-for="(piece, n) in sentence" :key="n"
      ><template v-if="typeof piece === 'string'">{{ piece }}</template
      ><PlaceWords
        v-else-if="'place' in piece"
        :place="force.place"
        :label="`${name}, place`"
        :turns="isTurned"
        @change="setPlace" /><SettingChip
        v-else
        :setting="piece.setting"
        :of="of"
        :words="FORCES[force.kind].choiceWords?.[piece.setting]"
        :label="labelOf(piece.setting)" /></template
    >.
  </span>
  <span v-if="turns !== null" class="where">
    That is
    <PlainChip
      :value="turns"
      :label="`${name}, turns a second`"
      :least="-100"
      :most="100"
      @change="(value, gesture) => setTurns(value, gesture)"
    />
    turns a second.
  </span>
</template>

<style scoped>
.where {
  display: block;
  font-size: 12.5px;
  color: var(--dim);
}
</style>
