<script setup lang="ts">
import { WarningOutlined } from '@ant-design/icons-vue';
import { Button, Popover } from 'ant-design-vue';
import { computed, ref } from 'vue';
import type { ToldFinding } from '../engine/checksWorker';

/** The first finding as a sentence with its mend; all of them when asked for. Pressed, a sentence leads to where it is put right. */
const props = defineProps<{ findings: readonly ToldFinding[] }>();
const emit = defineEmits<{ lead: [finding: ToldFinding]; mend: [finding: ToldFinding] }>();
const isOpen = ref(false);
const first = computed(() => props.findings[0]!);
const kind = ({ severity }: ToldFinding) => (severity === 'wrong' ? 'Wrong' : 'Doubtful');
</script>

<template>
  <span class="findings" role="status">
    <Button
      type="text"
      class="sentence"
      :class="first.severity"
      :data-guide="`findings#${first.id}`"
      :title="`${first.sentence} Go where it is put right`"
      @click="emit('lead', first)"
    >
      <WarningOutlined /><span class="visually-hidden">{{ kind(first) }}: </span>&nbsp;{{ first.sentence }}
    </Button>
    <Button v-if="first.mend" class="mend" @click="emit('mend', first)">{{ first.mend }}</Button>
    <Popover v-if="findings.length > 1" v-model:open="isOpen" trigger="click" placement="topRight">
      <template #content>
        <ul class="all" aria-label="More findings" @keydown.esc.stop="isOpen = false">
          <li v-for="finding in findings.slice(1)" :key="finding.id">
            <Button
              type="text"
              :class="finding.severity"
              class="whole"
              :data-guide="`findings#${finding.id}`"
              @click="emit('lead', finding)"
            >
              <WarningOutlined /><span class="visually-hidden">{{ kind(finding) }}: </span>&nbsp;{{
                finding.sentence
              }}
            </Button>
            <Button v-if="finding.mend" @click="emit('mend', finding)">{{ finding.mend }}</Button>
          </li>
        </ul>
      </template>
      <Button type="link" :aria-expanded="isOpen">{{ findings.length - 1 }} more</Button>
    </Popover>
  </span>
</template>

<style scoped>
.findings {
  display: flex;
  min-width: 0;
  align-items: center;
  gap: 4px;
}
.sentence {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
.wrong {
  color: var(--warn);
}
.mend {
  flex: none;
}
.all {
  width: 420px;
  max-height: 320px;
  overflow-y: auto;
  margin: 0;
  padding: 0;
  list-style: none;
}
.all li {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 2px 0;
}
.whole {
  flex: 1;
  white-space: normal;
  text-align: left;
}
</style>
