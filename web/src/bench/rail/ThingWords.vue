<script setup lang="ts">
import { EyeInvisibleOutlined, EyeOutlined } from '@ant-design/icons-vue';
import { Button } from 'ant-design-vue';
import { withoutItem, type Thing, type Vector } from '@jinx/core/document';
import { restExtent } from '@jinx/core/geometry';
import { computed, inject } from 'vue';
import type { AssetSummary } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { ENGINE } from '../bench';
import ChoiceChip from '../chips/ChoiceChip.vue';
import { assetChoices } from '../choices/assetChoices';
import PlainChip from '../chips/PlainChip.vue';
import VectorChip from '../chips/VectorChip.vue';

/** A figure or prop on the stage: what it is, what it does, where it stands. */
const props = defineProps<{ id: string; thing: Thing; assets: readonly AssetSummary[] }>();
const engine = inject(ENGINE)!;
const store = useEffectStore();
const clips = computed(() => engine.rigs.value.get(props.id)?.clips.map(({ name }) => name) ?? []);

const set = (label: string, recipe: (thing: Thing) => void, gesture: string | null = null) =>
  store.change(label, (draft) => recipe(draft.stage.things.byId[props.id]!), gesture);
const CLIPLESS = { value: '', text: 'stands' };
const clipChoices = computed(() => [CLIPLESS, ...clips.value.map((clip) => ({ value: clip, text: clip }))]);
const figures = computed(() => assetChoices(store.projectId, props.assets, 'rig'));
const WAYS = [
  { value: 'spot', text: 'on the spot' },
  { value: 'circle', text: 'round a circle' },
];

const chooseAsset = (asset: string) =>
  set('choose what stands there', (thing) => {
    thing.asset = asset;
    thing.name = props.assets.find(({ hash }) => hash === thing.asset)?.name ?? thing.name;
    thing.clip = '';
  });
const chooseClip = (clip: string) => set('choose the clip', (thing) => (thing.clip = clip));
const choosePath = (kind: string) =>
  set(
    'choose the way',
    (thing) => (thing.path = kind === 'circle' ? { kind: 'circle', radius: 3 } : { kind: 'spot' }),
  );
const move = (at: Vector, gesture: string | null) => set('move a thing', (thing) => (thing.at = at), gesture);
/** Its lowest point comes to stand on the ground, as it rests. */
function drop(): void {
  const rig = engine.rigs.value.get(props.id);
  if (!rig) return;
  const lowest = restExtent(rig.mesh.positions).low[1] * props.thing.scale;
  const [x, , z] = props.thing.at;
  set('drop a thing to the ground', (own) => (own.at = [x, Number((-lowest).toFixed(4)), z]));
}
const takeAway = () =>
  store.change('take a thing off the stage', (draft) => {
    draft.stage.things = withoutItem(draft.stage.things, props.id);
  });
</script>

<template>
  <section :aria-label="thing.name">
    <p class="who">
      <ChoiceChip :value="thing.asset" :choices="figures" label="figure" previews @choose="chooseAsset" />
      <ChoiceChip :value="thing.clip" :choices="clipChoices" label="clip" previews @choose="chooseClip" />
      <span class="space"></span>
      <Button
        type="text"
        :aria-pressed="thing.hidden"
        :aria-label="`${thing.hidden ? 'Show' : 'Hide'} ${thing.name}`"
        title="Hidden, it is still what layers are born on, hang on and meet"
        @click="set(thing.hidden ? 'show a thing' : 'hide a thing', (own) => (own.hidden = !own.hidden))"
      >
        <EyeInvisibleOutlined v-if="thing.hidden" /><EyeOutlined v-else />
      </Button>
      <Button
        type="text"
        :aria-label="`Take ${thing.name} off the stage`"
        title="Take it off the stage"
        @click="takeAway"
      >
        ×
      </Button>
    </p>
    <p>
      It goes
      <ChoiceChip :value="thing.path.kind" :choices="WAYS" label="way" previews @choose="choosePath" />
      <template v-if="thing.path.kind === 'circle'">
        of
        <PlainChip
          :value="thing.path.radius"
          label="radius of the way"
          unit="m"
          :least="0.2"
          :most="1000"
          @change="
            (radius, gesture) => set('change the way', (own) => (own.path = { kind: 'circle', radius }), gesture)
          "
        />
      </template>
    </p>
    <p>
      It stands at
      <VectorChip :value="thing.at" label="stands at" unit="m" :least="-1000" :most="1000" @change="move" />
      <Button type="link" title="Its lowest point comes to stand on the ground" @click="drop">
        Drop to ground
      </Button>
    </p>
    <p>
      turned by
      <PlainChip
        :value="thing.facing"
        label="turned by"
        unit="°"
        :least="-360"
        :most="360"
        @change="(facing, gesture) => set('turn a thing', (own) => (own.facing = facing), gesture)"
      />,
      <PlainChip
        :value="thing.scale"
        label="how large"
        unit="×"
        :least="0.01"
        :most="100"
        @change="(scale, gesture) => set('scale a thing', (own) => (own.scale = scale), gesture)"
      />
      as large, its clip begun at
      <PlainChip
        :value="thing.from"
        label="clip begins at"
        unit="s"
        :least="0"
        :most="3600"
        @change="(from, gesture) => set('start a clip elsewhere', (own) => (own.from = from), gesture)"
      />
    </p>
  </section>
</template>

<style scoped>
section + section {
  border-top: 1px solid var(--rule);
  padding-top: 4px;
}
.who {
  display: flex;
}
.space {
  flex: 1;
}
</style>
