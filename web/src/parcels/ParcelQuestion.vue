<script setup lang="ts">
import { Button, RadioGroup, Table } from 'ant-design-vue';
import { computed, reactive } from 'vue';
import type { ParcelChoice, ParcelClash, ParcelFigure, ParcelQuestion } from '../api';
import SelectField from '../SelectField.vue';

/** What to do with what of a parcel is open: namesakes, and figures. Nothing is changed until it is chosen. */
const props = defineProps<{ file: string; question: ParcelQuestion }>();
/** What was chosen, and bones that were chosen by hand, for each figure that is put on another. */
export interface Chosen {
  readonly clashes: Record<string, ParcelChoice>;
  readonly figures: Record<string, string>;
  readonly bones: readonly { from: string; to: string; bones: Record<string, string> }[];
}
const emit = defineEmits<{ choose: [chosen: Chosen]; leave: [] }>();

const KINDS = { effect: 'The effect', rig: 'The figure', picture: 'The picture' } as const;
const FOUND_BY = { kept: 'as last time', name: 'same name', likeness: 'alike name', place: 'nearest place' } as const;
const OWN = 'own';

const clashes = reactive<Record<string, ParcelChoice>>(
  Object.fromEntries(props.question.clashes.map(({ of }) => [of, 'both' as const])),
);
const figures = reactive<Record<string, string>>(
  Object.fromEntries(props.question.figures.map(({ hash }) => [hash, OWN])),
);
/** Bones chosen by hand, by figure and bone. */
const hand = reactive<Record<string, string>>({});

const optionsOf = ({ kind, name }: ParcelClash) => [
  { value: 'both', label: `keep both: the parcel’s becomes “${name} 2”` },
  kind === 'effect'
    ? { value: 'over', label: 'write it over the one here; its history keeps what it was' }
    : { value: 'present', label: 'use the one here in its place' },
];
const figureOptions = ({ name, others }: ParcelFigure) => [
  { value: OWN, label: `stay on ${name}, which comes with the parcel` },
  ...others.map((other) => ({ value: other.hash, label: `stand on ${other.name} of this project` })),
];
const otherOf = (figure: ParcelFigure) => figure.others.find(({ hash }) => hash === figures[figure.hash]);
const rowsOf = (figure: ParcelFigure) =>
  otherOf(figure)?.matches.map((match) => ({ ...match, key: `${figures[figure.hash]}/${match.bone}` })) ?? [];
const boneOptions = (figure: ParcelFigure) => otherOf(figure)?.bones.map((value) => ({ value })) ?? [];
const COLUMNS = [
  { title: 'Bone of the parcel', dataIndex: 'bone', key: 'bone' },
  { title: 'Takes its place', key: 'to', width: 240 },
  { title: 'Found by', key: 'by', width: 130 },
];

const chosen = computed((): Chosen => ({
  clashes: { ...clashes },
  figures: { ...figures },
  bones: props.question.figures.flatMap((figure) => {
    const rows = rowsOf(figure);
    if (!rows.some(({ key }) => hand[key])) return [];
    const bones = Object.fromEntries(rows.map(({ bone, to, key }) => [bone, hand[key] ?? to]));
    return { from: figure.hash, to: figures[figure.hash]!, bones };
  }),
}));
</script>

<template>
  <section class="question" role="group" :aria-label="`What to do with ${file}`">
    <p>
      <b>{{ file }}</b> is not taken in yet. Choose what to do.
    </p>
    <fieldset v-for="clash in question.clashes" :key="clash.of">
      <legend>{{ KINDS[clash.kind] }} “{{ clash.name }}”: there is another of this name here.</legend>
      <RadioGroup v-model:value="clashes[clash.of]" :name="clash.of" class="choices" :options="optionsOf(clash)" />
    </fieldset>
    <fieldset v-for="figure in question.figures" :key="figure.hash">
      <legend>Its effects were made on the figure “{{ figure.name }}”, which this project does not have. They</legend>
      <SelectField
        v-model:value="figures[figure.hash]"
        class="figure"
        :options="figureOptions(figure)"
        :label="`The figure in the place of ${figure.name}`"
      />
      <Table
        v-if="rowsOf(figure).length > 0"
        size="small"
        :columns="COLUMNS"
        :data-source="rowsOf(figure)"
        :pagination="false"
        :scroll="{ y: 220 }"
      >
        <template #bodyCell="{ column, record }">
          <SelectField
            v-if="column.key === 'to'"
            size="small"
            show-search
            class="bone"
            :value="hand[record.key] ?? record.to"
            :options="boneOptions(figure)"
            :label="`The bone in the place of ${record.bone}`"
            @change="hand[record.key] = $event as string"
          />
          <span v-else-if="column.key === 'by'" class="quiet">{{
            hand[record.key] ? 'you' : FOUND_BY[record.by as keyof typeof FOUND_BY]
          }}</span>
        </template>
      </Table>
      <p v-else-if="otherOf(figure)" class="quiet">They name no bones of it.</p>
    </fieldset>
    <Button type="primary" @click="emit('choose', chosen)">Take the parcel in</Button>
    <Button type="text" @click="emit('leave')">Leave it</Button>
  </section>
</template>

<style scoped>
.question {
  border: 1px solid var(--warn);
  border-radius: 4px;
  padding: 12px 16px;
  margin: 14px 0;
}
.question p {
  margin: 0 0 8px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 12px;
}
legend {
  border: 0;
  margin: 0 0 4px;
  font-size: inherit;
  color: var(--soft);
}
.choices {
  display: grid;
  gap: 2px;
}
.figure {
  width: 380px;
  margin-bottom: 8px;
}
.bone {
  width: 100%;
}
</style>
