<script setup lang="ts">
import { holderAt, parseSettingAddress } from '@jinx/core/document';
import { Tooltip } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../stores/effect';
import { settingHelp } from './settingHelp';
import { useTip } from './useTip';

/** The page's one tooltip. Of a setting it says what it does, its limits, where it begins and when it acts. */
const store = useEffectStore();
const { tip, id } = useTip();
const declaration = computed(() => {
  const text = tip.value?.element.dataset['address'];
  const address = text && parseSettingAddress(text);
  return address && store.effect ? (holderAt(store.effect, address)?.table[address.setting] ?? null) : null;
});
const lines = computed(() => (declaration.value ? settingHelp(declaration.value) : []));
const place = computed(() => {
  if (!tip.value) return {};
  const { left, top, width, height } = tip.value.element.getBoundingClientRect();
  return { left: `${left}px`, top: `${top}px`, width: `${width}px`, height: `${height}px` };
});
</script>

<template>
  <Tooltip v-if="tip" :key="place.left! + place.top!" :open="true" :trigger="[]" overlay-class-name="help-tip">
    <template #title>
      <div :id="id">
        <template v-if="declaration">
          <b>{{ declaration.name }}</b>
          <p v-for="line in lines" :key="line">{{ line }}</p>
        </template>
        <p v-if="tip.title" :class="{ dim: declaration }">{{ tip.title }}</p>
        <p class="dim">F1 tells more.</p>
      </div>
    </template>
    <i class="tip-anchor" :style="place"></i>
  </Tooltip>
</template>

<style>
.tip-anchor {
  position: fixed;
  pointer-events: none;
}
.help-tip {
  max-width: 320px;
  font-size: 12.5px;
  line-height: 17px;
}
.help-tip,
.help-tip * {
  pointer-events: none;
}
.help-tip .ant-tooltip-inner {
  background: #2a2a2d;
  border: 1px solid #434347;
}
.help-tip p {
  margin: 0;
}
.help-tip b + p,
.help-tip p + p {
  margin-top: 3px;
}
.help-tip .dim {
  color: var(--soft);
}
</style>
