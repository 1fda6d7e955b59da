<script setup lang="ts">
import { Alert, Button, Checkbox, Dropdown, Empty, Input, Menu, Modal, Spin, Table } from 'ant-design-vue';
import { computed, ref, shallowRef, watch } from 'vue';
import { api, type AssetSummary, type EffectSummary, type ParcelContents } from '../api';
import { tell } from '../tell';
import { downloadEffects, type HandedOver } from './download';
import { sizeWords } from './sizes';

/** What a parcel will hold, before it is made: effects, all they use, sizes, licences, and what is missing. */
const props = defineProps<{ projectId: string; effect: string }>();
const emit = defineEmits<{ close: []; film: [] }>();

const effects = shallowRef<readonly EffectSummary[]>([]);
const chosen = ref<string[]>([props.effect]);
const contents = shallowRef<ParcelContents | null>(null);
/** What is typed of it; null while it is as it was. */
const typedLicence = ref<string | null>(null);
const licence = computed({
  get: () => typedLicence.value ?? contents.value?.licence ?? '',
  set: (text) => (typedLicence.value = text),
});
const packing = ref<HandedOver | null>(null);
const PACKING: Readonly<Record<HandedOver, string>> = {
  parcel: 'Packing it',
  page: 'Making the page',
  attachments: 'Measuring it',
};

async function load(): Promise<void> {
  try {
    const ids = [...chosen.value];
    const found = ids.length > 0 ? await api.parcelContents(props.projectId, ids) : null;
    // Others may have been chosen meanwhile.
    if (ids.join() !== chosen.value.join()) return;
    contents.value = found;
  } catch (error) {
    tell(error);
  }
}
watch(chosen, load, { immediate: true });
api.project(props.projectId).then((project) => (effects.value = project.effects), tell);

const options = computed(() =>
  effects.value.map(({ id, name, siblingOf }) => ({
    value: id,
    label: siblingOf ? `${name} (sibling of ${siblingOf})` : name,
  })),
);
const total = computed(() => contents.value?.assets.reduce((sum, { bytes }) => sum + bytes, 0) ?? 0);
const isWhole = computed(
  () => contents.value !== null && chosen.value.length > 0 && contents.value.missing.length === 0,
);
const COLUMNS = [
  { title: 'What', dataIndex: 'name', key: 'name', ellipsis: true },
  { title: 'Also as', dataIndex: 'kind', key: 'kind', width: 100 },
  { title: 'Size', dataIndex: 'bytes', key: 'bytes', width: 84, align: 'right' as const },
  { title: 'Licence', dataIndex: 'licence', key: 'licence', width: 230 },
];

/** Keeps what was typed; what is typed meanwhile stays. */
async function saveLicence(): Promise<void> {
  const text = typedLicence.value;
  if (text !== null) await api.setProjectLicence(props.projectId, text.trim()).catch(tell);
}
async function saveAssetLicence({ hash, licence: before }: AssetSummary, text: string): Promise<void> {
  if (text !== before) await api.setAssetLicence(props.projectId, hash, text).then(load, tell);
}

async function give(as: HandedOver): Promise<void> {
  packing.value = as;
  try {
    await saveLicence();
    await downloadEffects(props.projectId, contents.value!.effects, as);
    emit('close');
  } catch (error) {
    tell(error);
  } finally {
    packing.value = null;
  }
}
</script>

<template>
  <Modal open title="Hand over" :width="720" :mask-closable="false" @cancel="emit('close')">
    <p class="about">
      <Button class="film" @click="emit('film')">Pictures and film…</Button>
      One file with effects and all they use: meshes as GLB, pictures as PNG, and the exact bytes that Jinx computes
      with. Jinx opens it as it was; other programs read the GLB and PNG files.
    </p>
    <Checkbox.Group v-if="options.length > 1" v-model:value="chosen" class="effects" :options="options" />
    <Spin :spinning="contents === null && chosen.length > 0">
      <Alert
        v-for="{ effect: name, what } in contents?.missing ?? []"
        :key="name + what"
        type="error"
        show-icon
        class="missing"
        :message="`${name} uses ${what}, which the project does not have any more. Import it again, or take it out of the effect.`"
      />
      <Table
        v-if="contents && contents.assets.length > 0"
        class="assets"
        size="small"
        row-key="hash"
        :columns="COLUMNS"
        :data-source="contents.assets as never"
        :pagination="false"
        :scroll="{ y: 210 }"
      >
        <template #bodyCell="{ column, record }">
          <template v-if="column.key === 'kind'">{{ record.kind === 'rig' ? 'GLB' : 'PNG' }}</template>
          <template v-else-if="column.key === 'bytes'"
            ><span class="number">{{ sizeWords(record.bytes) }}</span></template
          >
          <Input
            v-else-if="column.key === 'licence'"
            size="small"
            :default-value="record.licence"
            placeholder="not stated"
            :aria-label="`Licence of ${record.name}`"
            :maxlength="400"
            @blur="saveAssetLicence(record as AssetSummary, ($event.target as HTMLInputElement).value.trim())"
          />
        </template>
      </Table>
      <Empty
        v-else-if="contents"
        :image="Empty.PRESENTED_IMAGE_SIMPLE"
        description="These effects use no meshes and no pictures."
      />
      <p v-else class="quiet">Choose at least one effect.</p>
    </Spin>
    <label class="licence">
      <span>What may be done with the effects</span>
      <Input v-model:value="licence" placeholder="not stated" :maxlength="400" @blur="saveLicence" />
    </label>
    <template #footer>
      <span v-if="contents" class="total quiet number">
        {{ contents.effects.length === 1 ? '1 effect' : `${contents.effects.length} effects` }},
        {{ contents.assets.length === 1 ? '1 file' : `${contents.assets.length} files` }} of
        {{ sizeWords(total) }} before packing
      </span>
      <Button @click="emit('close')">Cancel</Button>
      <Dropdown.Button
        class="save"
        type="primary"
        :disabled="!isWhole || packing !== null"
        :loading="packing !== null"
        @click="give('parcel')"
      >
        {{ packing === null ? 'Save the parcel' : PACKING[packing] }}
        <template #icon><span aria-label="Save as something else">▾</span></template>
        <template #overlay>
          <Menu @click="give($event.key as HandedOver)">
            <Menu.Item key="page" title="For whoever has no Jinx: it plays offline, in any browser"
              >Save as a web page (HTML)</Menu.Item
            >
            <Menu.Item
              key="attachments"
              title="Sockets, stretches, dials, signals, timings and bounds: what a game has to know"
              >Save the attachments (JSON)</Menu.Item
            >
          </Menu>
        </template>
      </Dropdown.Button>
    </template>
  </Modal>
</template>

<style scoped>
.about {
  color: var(--soft);
  margin: 0 0 14px;
}
.film {
  float: right;
  margin: 0 0 6px 20px;
}
.effects {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px 12px;
  max-height: 128px;
  overflow: auto;
  margin-bottom: 14px;
}
.missing {
  margin-bottom: 8px;
}
.licence {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 12px;
  align-items: center;
  margin: 14px 0 4px;
}
.total {
  float: left;
  line-height: 30px;
}
.save {
  display: inline-flex;
  width: auto;
  margin-left: 8px;
}
</style>
