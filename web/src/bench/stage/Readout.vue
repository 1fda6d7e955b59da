<script setup lang="ts">
import { inject } from 'vue';
import { ENGINE } from '../bench';
import NumberField from '../chips/NumberField.vue';
import { countText } from '../entry/numbers';
import ShownTier from '../quality/ShownTier.vue';

/** What lives and costs now, the project's budget, and the quality that it is seen in. */
defineProps<{ budget: number }>();
const emit = defineEmits<{ setBudget: [value: number] }>();
const { state } = inject(ENGINE)!;
const LIMITS = { name: 'the budget', least: 1000, most: 4_000_000, unit: '', whole: true };
</script>

<template>
  <dl class="number">
    <dt>Alive</dt>
    <dd>
      {{ countText(state.living) }} of
      <NumberField
        class="budget"
        :text="countText(budget)"
        :limits="LIMITS"
        label="Budget: most particles living at once"
        title="The project’s budget: most particles of one effect living at once"
        @change="emit('setBudget', $event)"
      />
    </dd>
    <dt>A step</dt>
    <dd>{{ state.stepMilliseconds.toFixed(1) }} ms</dd>
    <dt>A picture</dt>
    <dd>{{ state.drawMilliseconds.toFixed(1) }} ms</dd>
    <dt>Quality</dt>
    <dd><ShownTier /></dd>
  </dl>
  <p v-if="!state.isExact" class="quiet">
    A change was taken up in mid-run. What it gives from the start is being computed:
    {{ Math.floor(state.settled * 100) }}%.
  </p>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto auto;
  gap: 4px 16px;
  margin: 0;
  align-items: center;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
}
.budget {
  width: 90px;
}
p {
  max-width: 260px;
  margin: 6px 0 0;
}
</style>
