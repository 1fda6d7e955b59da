<script setup lang="ts">
import { Button } from 'ant-design-vue';
import {
  isShapeKind,
  measuresOf,
  SHAPES,
  type Layer,
  type Place,
  type Source,
  type SourceKind,
} from '@jinx/core/document';
import { computed, inject, provide } from 'vue';
import { useEffectStore } from '../../stores/effect';
import { useFitActs } from '../acts/useFitActs';
import { SOURCE_KINDS, useSourceActs } from '../acts/useSourceActs';
import { DRAGS, ENGINE } from '../bench';
import ActChip from '../chips/ActChip.vue';
import ChoiceChip from '../chips/ChoiceChip.vue';
import { layersBefore, layersWithMesh } from '../values/linkable';
import MenuButton from '../chips/MenuButton.vue';
import PlaceWords from '../chips/PlaceWords.vue';
import SettingChip from '../chips/SettingChip.vue';
import VectorChip from '../chips/VectorChip.vue';
import ChapterHead from './ChapterHead.vue';
import HitsWords from './HitsWords.vue';
import FrontWords from './FrontWords.vue';

const store = useEffectStore();
const engine = inject(ENGINE)!;
// While a source or a force is being dragged, the other layers stand at their fullest.
provide(DRAGS, (isDragged) => engine.simulation.compare(isDragged ? store.chosenId : null));
const layer = computed(() => store.chosen!);
const source = computed(() => layer.value.source);
/** Each measure of a shape, as the rest of a sentence. */
const WORDS: Record<string, string> = {
  'source.radius': 'its radius is',
  'source.length': 'its length',
  'source.thickness': 'its thickness',
  'source.arc': 'it goes',
  'source.rise': 'it reaches down to',
  'source.angle': 'its sides lean',
  'source.size': 'it measures',
};
const measures = computed(() => measuresOf(source.value.kind));
/** Births lie on rings about the particles that bear them. */
const hasRing = computed(() => {
  const { base, shapers } = layer.value.settings['source.ring'];
  return source.value.kind === 'particles' && (base.kind !== 'fixed' || base.value > 0 || shapers.order.length > 0);
});
const hasRegion = computed(() => {
  const { kind } = source.value;
  return kind === 'mesh' || kind === 'drawn' || (isShapeKind(kind) && SHAPES[kind].hasRegions);
});
const region = computed(() => layer.value.settings['source.region'].base.value);
const order = computed(() => layer.value.settings['source.order'].base.value);
const isVolume = computed(() => region.value === 'volume' && isShapeKind(source.value.kind));

const things = computed(() =>
  store.effect!.stage.things.order.map((id) => ({ value: id, text: store.effect!.stage.things.byId[id]!.name })),
);
const thingId = computed(() => ('thing' in source.value ? source.value.thing : ''));
const bones = computed(() => engine.rigs.value.get(thingId.value)?.bones.map(({ name }) => name) ?? []);
const isThere = computed(() => things.value.some(({ value }) => value === thingId.value));

const set = (label: string, recipe: (target: Layer, layerId: string) => void, gesture: string | null = null) =>
  store.changeLayers(label, recipe, gesture);
const { choose } = useSourceActs();
const { canFit, choices: fits, fit } = useFitActs(engine);
/** Layers on whose particles this one may be born. */
const parents = computed(() => layersBefore(store.effect!, store.chosenId));
const setParent = (id: string) =>
  set('choose the particles', (target, layerId) => {
    if (target.source.kind === 'particles' && id !== layerId) target.source.layer = id;
  });
/** Layers on whose mesh this one may be born; what it is born on is among them, even where it cannot bear. */
const meshes = computed(() => {
  const found = layersWithMesh(store.effect!, store.chosenId);
  const { value } = source;
  if (value.kind !== 'drawn' || found.some((choice) => choice.value === value.layer)) return found;
  return [...found, { value: value.layer, text: store.effect!.layers.byId[value.layer]!.name }];
});
const setMesh = (id: string) =>
  set('choose the mesh', (target, layerId) => {
    if (target.source.kind === 'drawn' && id !== layerId) target.source.layer = id;
  });
const kinds = computed(() =>
  SOURCE_KINDS.filter(({ value }) => {
    const others = { particles: parents.value, drawn: meshes.value }[value as string];
    return !others || others.length > 0 || source.value.kind === value;
  }),
);
const setPlace = (place: Place, gesture: string | null) =>
  set('place the source', (target) => 'place' in target.source && (target.source.place = place), gesture);
const setThing = (thing: string) =>
  set('choose the thing', (target) => 'thing' in target.source && (target.source.thing = thing));
const changePath = (
  label: string,
  recipe: (path: Extract<Source, { kind: 'path' }>) => void,
  gesture: string | null = null,
) => set(label, (target) => target.source.kind === 'path' && recipe(target.source), gesture);

const keptBones = computed(() => ('bones' in source.value ? source.value.bones : []));
const otherBones = computed(() => bones.value.filter((bone) => !keptBones.value.includes(bone)));
const keep = (names: string[]) =>
  set('choose the bones', (target) => 'bones' in target.source && (target.source.bones = names));
</script>

<template>
  <ChapterHead chapter="source" />
  <p>
    Born
    <ChoiceChip
      :value="source.kind"
      :choices="kinds"
      label="source"
      previews
      @choose="choose($event as SourceKind)"
    />
    <template v-if="'thing' in source">
      of
      <ChoiceChip
        :value="source.thing"
        :choices="isThere ? things : [...things, { value: source.thing, text: 'something gone' }]"
        label="the thing born on"
        previews
        @choose="setThing" /></template
    ><template v-if="source.kind === 'drawn'">
      named
      <ChoiceChip
        :value="source.layer"
        :choices="meshes"
        label="the mesh born on"
        previews
        @choose="setMesh" /></template
    ><template v-if="source.kind === 'particles'">
      of
      <ChoiceChip
        :value="source.layer"
        :choices="parents"
        label="the particles born on"
        previews
        @choose="setParent"
      />, on <SettingChip setting="source.ring" /> about each<template v-if="hasRing"
        >, ragged by <SettingChip setting="source.ragged" /> in rags of <SettingChip setting="source.rags" /> that
        stir <SettingChip setting="source.stir"
      /></template> </template
    ><template v-if="hasRegion">, on <SettingChip setting="source.region" /></template
    ><template v-if="source.kind === 'bones'">, <SettingChip setting="source.along" /></template
    ><template v-if="source.kind !== 'hits' && (source.kind !== 'particles' || hasRing)"
      >, <SettingChip setting="source.order" /></template
    ><template v-if="order === 'walking'"> in <SettingChip setting="source.walk" /> births</template>.
  </p>
  <HitsWords v-if="source.kind === 'hits'" />
  <p v-if="'place' in source">
    It stands at <PlaceWords :place="source.place" label="source place" turns @change="setPlace" />.
    <MenuButton
      v-if="canFit"
      label="fit to…"
      :choices="fits"
      title="Takes place, turn and size from a layer, a figure or a bone"
      previews
      @choose="fit"
    />
  </p>
  <p v-if="measures.length > 0">
    <template v-for="(name, n) in measures" :key="name"
      >{{ n === 0 ? WORDS[name]![0]!.toUpperCase() + WORDS[name]!.slice(1) : `, ${WORDS[name]}` }}
      <SettingChip :setting="name" /></template
    ><template v-if="isVolume">, filled to a depth of <SettingChip setting="source.depth" /></template>. Stretched by
    <SettingChip setting="source.stretch" />.
  </p>
  <template v-if="source.kind === 'path'">
    <p v-for="(point, n) in source.points" :key="n" class="point">
      Point {{ n + 1 }}
      <VectorChip
        :value="point"
        :label="`point ${n + 1}`"
        unit="m"
        :least="-1000"
        :most="1000"
        @change="(at, gesture) => changePath('move a point of the path', (path) => (path.points[n] = at), gesture)"
      />
      <Button
        v-if="source.points.length > 2"
        type="text"
        title="Take this point out"
        :aria-label="`Take point ${n + 1} out`"
        @click="changePath('take a point out of the path', (path) => path.points.splice(n, 1))"
      >
        ×
      </Button>
    </p>
    <p>
      <Button
        type="link"
        @click="
          changePath('add a point to the path', (path) => {
            const [x, y, z] = path.points[path.points.length - 1]!;
            path.points.push([x + 0.4, y, z]);
          })
        "
      >
        Add a point
      </Button>
      <Button type="link" @click="changePath('close or open the path', (path) => (path.closed = !path.closed))">
        {{ source.closed ? 'Open it' : 'Close it' }}
      </Button>
    </p>
  </template>
  <template v-if="'bones' in source">
    <p v-if="!isThere" class="quiet">
      No figure stands on the stage yet: put one there, above the stage, and its
      {{ source.kind === 'mesh' ? 'skin bears' : 'bones bear' }}
      the particles.
    </p>
    <p v-else>
      {{ source.kind === 'mesh' ? 'Kept to the skin of' : 'Kept to' }}
      <template v-if="keptBones.length === 0"
        >the <span class="chip">{{ source.kind === 'mesh' ? 'whole body' : 'whole skeleton' }}</span></template
      >
      <ActChip
        v-for="bone in keptBones"
        :key="bone"
        :title="`Leave ${bone} out`"
        @click="keep(keptBones.filter((other) => other !== bone))"
      >
        {{ bone }} ×
      </ActChip>
      <MenuButton
        :label="keptBones.length ? 'and…' : 'or only…'"
        :choices="otherBones.map((bone) => ({ value: bone, text: bone }))"
        @choose="keep([...keptBones, $event])"
      />
    </p>
  </template>
  <p>
    Births happen
    <SettingChip setting="source.ground" label="dropped to the ground" />, at heights up to
    <SettingChip setting="source.below" />.
  </p>
  <FrontWords />
</template>
