<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { partsOf } from '@jinx/core/geometry';
import { listed, withItem, withoutItem, type DrawnAs } from '@jinx/core/document';
import { computed, inject } from 'vue';
import type { AssetSummary } from '../../../api';
import { useEffectStore } from '../../../stores/effect';
import { ASSETS, BRING, ENGINE, KIT } from '../../bench';
import ChoiceChip from '../../chips/ChoiceChip.vue';
import { pickFile } from '../../files';
import { assetsAndKit } from '../../choices/assetChoices';
import { kitFile } from '../../choices/kitChoices';
import MenuButton from '../../chips/MenuButton.vue';
import PlainChip from '../../chips/PlainChip.vue';
import SettingChip from '../../chips/SettingChip.vue';
import { useChosenPart } from '../../useChosenPart';

type MeshDrawn = Extract<DrawnAs, { kind: 'mesh' }>;
const props = defineProps<{ drawn: MeshDrawn }>();
const store = useEffectStore();
const of = useChosenPart('drawn');
const engine = inject(ENGINE)!;
const assets = inject(ASSETS)!;
const bring = inject(BRING)!;
const kit = inject(KIT)!;
const meshes = computed(() => listed(props.drawn.meshes));
const choices = computed(() => [
  ...assetsAndKit(store.projectId, assets.value, kit.files.value, 'rig'),
  { value: '', text: 'a .glb file…' },
]);
const change = (label: string, recipe: (drawn: MeshDrawn) => void, gesture: string | null = null) =>
  store.changeLayers(label, ({ drawn }) => drawn.kind === 'mesh' && recipe(drawn), gesture);
const add = (asset: string, name: string) =>
  change(
    `draw ${name}`,
    (drawn) => (drawn.meshes = withItem(drawn.meshes, store.newId(), { asset, name, chance: 1 })),
  );
function take(brought: AssetSummary | null): void {
  if (brought?.kind === 'rig') add(brought.hash, brought.name);
}
async function choose(value: string): Promise<void> {
  const asset = assets.value.find(({ hash }) => hash === value);
  const fromKit = kitFile(value);
  if (asset) take(asset);
  // What has to be taken in first cannot be seen before.
  else if (store.isTrying()) return;
  else if (fromKit !== null) take(await kit.bring(fromKit));
  else pickFile('.glb', async (file) => take(await bring(file)));
}
const remove = (id: string) => change('take a mesh out', (drawn) => (drawn.meshes = withoutItem(drawn.meshes, id)));

/** Parts that the meshes have, by name, each with the look it has of its own. */
const parts = computed(() => {
  const names = meshes.value.flatMap(({ item }) => {
    const rig = engine.meshes.value.get(item.asset);
    return rig ? partsOf(rig.mesh).map(({ name }) => name) : [];
  });
  return [...new Set(names)].filter((name) => name !== '');
});
/** Whether any of them has brought another shape along. */
const hasOtherShape = computed(() =>
  meshes.value.some(({ item }) => engine.meshes.value.get(item.asset)?.mesh.otherShape !== undefined),
);
const lookOf = (part: string) => props.drawn.parts.find((known) => known.part === part)?.look ?? '';
const looks = computed(() => [
  { value: '', text: 'the layer’s look' },
  ...listed(store.effect!.looks).map(({ id, item }) => ({ value: id, text: item.name })),
]);
const setLook = (part: string, look: string) =>
  change(`choose the look of ${part}`, (drawn) => {
    const others = drawn.parts.filter((known) => known.part !== part);
    drawn.parts = look === '' ? others : [...others, { part, look }];
  });
const OWN = { yes: 'with', no: 'without' };
const SHADOW = { yes: 'darkens the ground under it', no: 'casts no shadow' };
</script>

<template>
  <p v-if="meshes.length === 0" class="quiet">No mesh yet: choose one, or drop a .glb file.</p>
  <p v-for="{ id, item } in meshes" :key="id">
    {{ item.name }}
    <template v-if="meshes.length > 1"
      >, chance
      <PlainChip
        :value="item.chance"
        :label="`chance of ${item.name}`"
        :least="0"
        :most="1000"
        @change="(chance, drag) => change('set a chance', (made) => (made.meshes.byId[id]!.chance = chance), drag)"
    /></template>
    <Button type="text" :aria-label="`Take ${item.name} out`" @click="remove(id)">×</Button>
  </p>
  <p>
    <MenuButton
      :label="meshes.length === 0 ? 'Choose a mesh' : 'Another mesh'"
      :choices="choices"
      previews
      @choose="choose"
    />
  </p>
  <p>
    Its size is that of the longest side; it is <SettingChip setting="life.depth" /> of that deep, drawn
    <SettingChip setting="vertexColours" :of="of" :words="OWN" label="own colours" /> its own colours, and
    <SettingChip setting="shadow" :of="of" :words="SHADOW" label="shadow" />. Lit, it is
    <SettingChip setting="roughness" :of="of" label="roughness" /> dull and
    <SettingChip setting="metalness" :of="of" label="metalness" /> metal.
  </p>
  <p v-if="hasOtherShape">
    It has taken <SettingChip setting="otherShape" :of="of" label="other shape" /> of the other shape in its file.
  </p>
  <p v-for="part in parts" :key="part">
    Its part {{ part }} has
    <ChoiceChip
      :value="lookOf(part)"
      :choices="looks"
      :label="`look of ${part}`"
      previews
      @choose="(look) => setLook(part, look)"
    />.
  </p>
</template>
