<script setup lang="ts">
import type { FilmSettings } from '@jinx/core/formats';
import { Button, Input, message, Popover } from 'ant-design-vue';
import { computed, ref } from 'vue';
import { KIND_CHOICES } from './choices';
import { usePresets } from './usePresets';
import SelectField from '../SelectField.vue';

/** Settings that the project keeps under names: taken up, kept, taken away. */
const props = defineProps<{ projectId: string; settings: FilmSettings }>();
const emit = defineEmits<{ use: [settings: FilmSettings] }>();
const { presets, keep, forget } = usePresets(props.projectId);
const name = ref('');
const isNaming = ref(false);
const chosen = ref<string | undefined>();
const options = computed(() =>
  presets.value.map(({ name: value, settings }) => ({
    value,
    label: `${value} (${settings ? KIND_CHOICES.find((choice) => choice.value === settings.as)!.label : 'cannot be read'})`,
  })),
);
const found = computed(() => presets.value.find((preset) => preset.name === chosen.value));
function choose(): void {
  const preset = found.value;
  if (preset?.settings) emit('use', preset.settings);
  else if (preset)
    void message.info(
      `“${preset.name}” was kept by another version of Jinx and cannot be read: keep it anew, or take it away.`,
    );
}
async function keepIt(): Promise<void> {
  const text = name.value.trim();
  if (!text) return;
  isNaming.value = false;
  await keep(text, props.settings);
  chosen.value = text;
}
async function forgetIt(): Promise<void> {
  const preset = found.value;
  chosen.value = undefined;
  if (preset) await forget(preset);
}
</script>

<template>
  <div class="presets">
    <label class="known"
      ><span>Preset</span>
      <SelectField
        v-model:value="chosen"
        class="chosen"
        :options="options"
        show-search
        placeholder="none"
        title="Settings that the project keeps under a name"
        not-found-content="None is kept yet: set all as you want it, and keep it."
        @change="choose"
    /></label>
    <Popover v-model:open="isNaming" trigger="click" placement="bottomRight">
      <Button @click="name = chosen ?? ''">Keep…</Button>
      <template #content>
        <form class="naming" @submit.prevent="keepIt">
          <Input
            v-model:value="name"
            :maxlength="80"
            placeholder="Name of the preset"
            aria-label="Name of the preset"
          />
          <Button html-type="submit" type="primary" :disabled="!name.trim()">Keep</Button>
        </form>
      </template>
    </Popover>
    <Button v-if="found" :aria-label="`Take the preset ${found.name} away`" title="Take it away" @click="forgetIt">
      ×
    </Button>
  </div>
</template>

<style scoped>
.presets,
.naming {
  display: flex;
  gap: 6px;
}
.known {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--soft);
}
.chosen {
  width: 200px;
}
</style>
