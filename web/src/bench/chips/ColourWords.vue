<script setup lang="ts">
import { ExportOutlined } from '@ant-design/icons-vue';
import { freeName, listed, namedColour, withItem, type Colour } from '@jinx/core/document';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { useEffectStore } from '../../stores/effect';
import type { PickItem } from '../pick/pick';
import { cssOf, hexTyped } from '../values/colour';
import ColourField from '../colour/ColourField.vue';
import ChoiceChip from './ChoiceChip.vue';

/** A colour in a sentence: one of the palette, or one of its own, picked or typed. */
const props = defineProps<{ colour: Colour; label: string }>();
const emit = defineEmits<{ change: [colour: Colour, isDrag: boolean] }>();
const store = useEffectStore();
const OWN = 'own';
const css = computed(() => cssOf(props.colour, store.effect!));
const chosen = computed(() => ('palette' in props.colour ? props.colour.palette : OWN));
const choices = computed((): PickItem[] => [
  { value: OWN, text: css.value, swatch: css.value, help: 'A colour of its own: type one, as #8fe0d0 or teal' },
  ...listed(store.effect!.palette).map(({ id, item }) => ({
    value: id,
    text: item.name,
    swatch: cssOf({ palette: id }, store.effect!),
  })),
]);
/** What is typed as a colour of its own, unless the palette has one of that name. */
function offer(typed: string): PickItem | null {
  const hex = hexTyped(typed);
  const isNamed = choices.value.some(({ text }) => text.toLowerCase().startsWith(typed.toLowerCase()));
  return hex === null || isNamed ? null : { value: hex, text: hex, swatch: hex };
}
function choose(value: string): void {
  const isOwn = value === OWN || value.startsWith('#');
  emit('change', isOwn ? { hex: value === OWN ? css.value : value } : { palette: value }, false);
}

/** The colour of the palette that it is, if it is one. */
const entry = computed(() =>
  'palette' in props.colour ? (store.effect!.palette.byId[props.colour.palette] ?? null) : null,
);
const exposing = computed(() => {
  if (!entry.value) return 'Name this colour and make it a dial';
  return entry.value.isDial ? `${entry.value.name} is a dial: keep it in` : `Make a dial of ${entry.value.name}`;
});
/** Brings a colour out where it stands: one of its own gets a name first, as one step. */
function expose(): void {
  const { colour } = props;
  if ('palette' in colour) {
    store.change(entry.value?.isDial ? 'keep a colour in' : 'bring a colour out', ({ palette }) => {
      const known = palette.byId[colour.palette];
      if (known) known.isDial = !known.isDial;
    });
    return;
  }
  const [id, before] = [store.newId(), store.past.length];
  const name = freeName(store.effect!.palette, `${store.chosen?.name ?? ''} ${props.label}`.trim().slice(0, 80));
  store.change('name a colour', (draft) => {
    draft.palette = withItem(draft.palette, id, { ...namedColour(name, css.value), isDial: true });
  });
  emit('change', { palette: id }, false);
  if (store.past.length > before + 1) store.joinSteps(before, 'bring a colour out');
}
</script>

<template>
  <span class="colour">
    <ColourField
      :hex="css"
      :label="label"
      @change="emit('change', { hex: $event }, true)"
      @choose="emit('change', { palette: $event }, false)"
    />
    <ChoiceChip
      :value="chosen"
      :choices="choices"
      :label="`${label}, by name`"
      :offer="offer"
      previews
      @choose="choose"
    />
    <Button
      type="text"
      class="expose"
      :class="{ on: entry?.isDial }"
      :title="exposing"
      :aria-label="exposing"
      :aria-pressed="entry?.isDial === true"
      @click="expose"
    >
      <ExportOutlined />
    </Button>
  </span>
</template>

<style scoped>
.colour {
  white-space: nowrap;
}
.expose {
  padding: 0 3px;
  height: 22px;
  color: var(--dim);
}
.expose.on {
  color: var(--accent);
}
</style>
