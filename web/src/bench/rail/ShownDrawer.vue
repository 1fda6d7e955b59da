<script setup lang="ts">
import { Radio, Switch } from 'ant-design-vue';
import { inject } from 'vue';
import { SHOWN } from '../bench';
import { useDimsOthers } from '../stage/usePulled';
import { VIEWS } from '../stage/views';
import JudgingWords from './JudgingWords.vue';

/** What the stage shows of the effect, and how. */
const { view, showGuides, isRaw, isDim, replays } = inject(SHOWN)!;
const dimsOthers = useDimsOthers();
const SWITCHES = [
  { name: 'Guides', help: 'Grid, sources, forces and handles (C)', isOn: showGuides },
  { name: 'Raw', help: 'Without bloom, exposure and fog (R)', isOn: isRaw },
  { name: 'Dim', help: 'Darker, for what is too bright to work on (D)', isOn: isDim },
  {
    name: 'Others dimmed',
    help: 'While something is pulled, the layers that are not chosen are dimmed',
    isOn: dimsOthers,
  },
  { name: 'Replay', help: 'Every change plays the effect again from its beginning', isOn: replays },
];
</script>

<template>
  <Radio.Group
    v-model:value="view"
    class="views"
    aria-label="what the stage shows"
    title="V: the picture, or the last other view"
  >
    <Radio v-for="{ value, text } in VIEWS" :key="value" :value="value">{{ text }}</Radio>
  </Radio.Group>
  <div class="switches">
    <label v-for="{ name, help, isOn } in SWITCHES" :key="name" :title="help"
      >{{ name }} <Switch v-model:checked="isOn.value" size="small" :aria-label="name"
    /></label>
  </div>
  <JudgingWords />
</template>

<style scoped>
.views {
  display: grid;
  grid-template-columns: repeat(2, auto);
  gap: 2px 10px;
  justify-items: start;
}
.switches {
  display: grid;
  grid-template-columns: repeat(2, auto);
  gap: 0 24px;
  margin-top: 6px;
  border-top: 1px solid var(--rule);
  padding-top: 4px;
}
label {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
</style>
