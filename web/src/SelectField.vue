<script setup lang="ts">
import { Select } from 'ant-design-vue';
import { onMounted, onUpdated, ref, watch, type ComponentPublicInstance } from 'vue';

/** A list to choose from, by a name that is read. The library’s own has none, and closed it names a list that is not there. */
const props = defineProps<{ label?: string }>();
const select = ref<ComponentPublicInstance>();
const isOpen = ref(false);
function nameIt(): void {
  const input = (select.value?.$el as HTMLElement | undefined)?.querySelector('input[role=combobox]');
  if (!input) return;
  const list = `${input.id}_list`;
  const said = {
    'aria-expanded': String(isOpen.value),
    'aria-owns': isOpen.value && list,
    'aria-controls': isOpen.value && list,
    ...(isOpen.value ? {} : { 'aria-activedescendant': false }),
    ...(props.label ? { 'aria-label': props.label } : {}),
  };
  for (const [name, value] of Object.entries(said))
    if (typeof value === 'string') input.setAttribute(name, value);
    else input.removeAttribute(name);
}
onMounted(nameIt);
onUpdated(nameIt);
watch(isOpen, nameIt, { flush: 'post' });
</script>

<template>
  <Select ref="select" @dropdown-visible-change="isOpen = $event">
    <template v-for="(_, name) in $slots" #[name]="given"><slot :name="name" v-bind="given ?? {}" /></template>
  </Select>
</template>
