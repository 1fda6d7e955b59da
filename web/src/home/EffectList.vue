<script setup lang="ts">
import { Button, Empty, Input, Pagination, Segmented } from 'ant-design-vue';
import { computed, ref, watch } from 'vue';
import type { EffectSummary } from '../api';
import DeleteButton from './DeleteButton.vue';
import EffectCard from './EffectCard.vue';

/** The effects of a project: found, sorted, a page at a time. What is on the page is told, so that it is pictured. */
const props = defineProps<{
  effects: readonly EffectSummary[];
  pictures: ReadonlyMap<string, ImageBitmap>;
}>();
const emit = defineEmits<{
  shown: [effects: readonly EffectSummary[]];
  handOver: [id: string];
  remove: [effect: EffectSummary];
}>();
/** Effects on one page: rows of 4, 5 and 6 are whole. */
const A_PAGE = 60;
/** A search and an order are of use from so many effects on. */
const MANY = 6;
const ORDERS = [
  { value: 'worked', label: 'Last worked on' },
  { value: 'name', label: 'Name' },
];
const order = ref('worked');
const find = ref('');
const page = ref(1);
const byName = (a: EffectSummary, b: EffectSummary) => a.name.localeCompare(b.name, 'en', { numeric: true });
const sorted = computed(() =>
  [...props.effects].sort(
    (a, b) => (order.value === 'worked' ? b.savedAt.localeCompare(a.savedAt) : 0) || byName(a, b),
  ),
);
const found = computed(() => {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean);
  return sorted.value.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)));
});
const shown = computed(() => found.value.slice((page.value - 1) * A_PAGE, page.value * A_PAGE));
watch([find, order], () => (page.value = 1));
watch(
  () => found.value.length,
  (count) => (page.value = Math.max(1, Math.min(page.value, Math.ceil(count / A_PAGE)))),
);
watch(shown, (now) => emit('shown', now), { immediate: true });
</script>

<template>
  <div v-if="effects.length >= MANY" class="heading tools">
    <Input
      v-model:value="find"
      type="search"
      class="find"
      placeholder="Find an effect by its name"
      aria-label="Find an effect by its name"
      allow-clear
      :maxlength="80"
    />
    <Segmented v-model:value="order" :options="ORDERS" aria-label="Order of the effects" />
    <span class="quiet" role="status">{{
      found.length === effects.length ? `${effects.length} effects` : `${found.length} of ${effects.length}`
    }}</span>
  </div>
  <ul class="grid cards">
    <li v-for="effect in shown" :key="effect.id">
      <EffectCard :effect="effect" :picture="pictures.get(effect.id)" />
      <span class="acts">
        <Button type="text" :aria-label="`Hand over ${effect.name}`" @click="emit('handOver', effect.id)">
          Hand over
        </Button>
        <DeleteButton :name="effect.name" @delete="emit('remove', effect)" />
      </span>
    </li>
  </ul>
  <Pagination
    v-if="found.length > A_PAGE"
    v-model:current="page"
    class="pages"
    :total="found.length"
    :page-size="A_PAGE"
    :show-size-changer="false"
  />
  <Empty v-if="found.length === 0 && effects.length > 0" :description="`Nothing is called “${find.trim()}”.`" />
</template>

<style scoped src="./home.css"></style>
<style scoped>
.tools {
  margin-top: 10px;
}
.pages {
  margin-top: 18px;
}
</style>
