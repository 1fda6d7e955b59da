<script setup lang="ts">
import { Popover } from 'ant-design-vue';

/** The bench's keys, in one place. */
const KEYS = [
  ['Space', 'play or pause'],
  [', and .', 'one step back, one step on'],
  ['L', 'let go: the hold ends'],
  ['X', 'strike what the middle of the picture shows'],
  ['C', 'clear the stage of guides and handles'],
  ['G', 'put a particle of the stage under the glass'],
  ['R', 'raw: without lens and air'],
  ['V', 'another view: grey values, silhouettes, ages…'],
  ['D', 'dim what is too bright to work on'],
  ['1, 2, 3', 'move, turn or size the chosen handle'],
  ['K', 'key the chosen handle at this instant'],
  ['arrows on a handle', 'nudge it; Page Up, Page Down for z'],
  ['Enter', 'frame the figure'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['Tab', 'walk the chips of a chapter'],
  ['↑ ↓ on a chip', 'nudge it; ten times as far with Shift, a tenth with Alt'],
  ['Enter on a chip', 'type'],
  ['↑ ↓ on a row', 'choose another layer'],
  ['Alt ↑ ↓ on a row', 'move the layer'],
  ['Shift ↑ ↓ on a row', 'choose several layers; also Shift or Ctrl and a press'],
  ['H, S, O on a row', 'hide, see alone, lock'],
  ['D, G, M, Delete on a row', 'copy, group, mirror, delete'],
  ['Ctrl C on a row, Ctrl V', 'copy layers; put them in, also in another effect'],
  ['arrows on a curve’s key', 'move all that are chosen; Delete, Insert take away, add'],
  ['S, P, H, F on a curve’s key', 'smooth, sharp, held; end for end'],
  ['Ctrl A, C, V on a curve’s key', 'choose all; copy; paste, also into another line'],
  ['arrows on the filmstrip', 'light on the stage what has that age'],
  ['arrows on the stage', 'orbit'],
] as const;
</script>

<template>
  <Popover trigger="click" placement="topRight">
    <template #content>
      <dl class="keys">
        <template v-for="[key, what] in KEYS" :key="key">
          <dt>{{ key }}</dt>
          <dd>{{ what }}</dd>
        </template>
      </dl>
    </template>
    <button type="button" class="plain" title="Every key of the bench">Keys</button>
  </Popover>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: auto auto;
  gap: 3px 18px;
  margin: 0;
}
dt {
  color: var(--ink);
}
dd {
  margin: 0;
  color: var(--soft);
}
</style>
