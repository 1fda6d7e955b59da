<script setup lang="ts">
import { TinyColor } from '@ctrl/tinycolor';
import { BgColorsOutlined } from '@ant-design/icons-vue';
import { listed } from '@jinx/core/document';
import { Button, InputNumber } from 'ant-design-vue';
import { computed, ref, useId, watch } from 'vue';
import { ColorPicker } from 'vue-accessible-color-picker';
import 'vue-accessible-color-picker/styles';
import { useEffectStore } from '../../stores/effect';
import { coloursIn, cssOf, fromHsv, hsvOf } from '../values/colour';

/** A colour picked from a field, typed as hex, RGB or HSV, taken from the palette or the effect, or from the screen. */
const props = defineProps<{ hex: string }>();
const emit = defineEmits<{ change: [hex: string]; choose: [paletteId: string] }>();
const store = useEffectStore();
const id = useId();
const rgb = computed(() => new TinyColor(props.hex).toRgb());
/** Kept beside the colour: greys have no hue and black has no saturation, and they would jump to 0. */
const hsv = ref(hsvOf(props.hex));
/** What the field shows. It is not told of what it sent itself: rounded to a hex, that would move its handle. */
const shown = ref(props.hex);
let sent = props.hex;
watch(
  () => props.hex,
  (hex) => {
    if (fromHsv(hsv.value) !== hex) hsv.value = hsvOf(hex);
    if (hex !== sent) shown.value = hex;
  },
);
function send(hex: string): void {
  if (hex === props.hex) return;
  sent = hex;
  emit('change', hex);
}
const pick = ({ cssColor }: { cssColor: string }) => send(new TinyColor(cssColor).toHexString());
/** From outside the field: the field follows. */
function set(hex: string): void {
  send(hex);
  shown.value = hex;
}
const CHANNELS = [
  ['r', 'Red'],
  ['g', 'Green'],
  ['b', 'Blue'],
] as const;
const setChannel = (channel: 'r' | 'g' | 'b', value: number) =>
  set(new TinyColor({ ...rgb.value, [channel]: value }).toHexString());
const PARTS = [
  ['h', 'Hue', 360],
  ['s', 'Saturation', 100],
  ['v', 'Value', 100],
] as const;
function setPart(part: 'h' | 's' | 'v', value: number): void {
  hsv.value = { ...hsv.value, [part]: value };
  set(fromHsv(hsv.value));
}
const palette = computed(() =>
  listed(store.effect!.palette).map(({ id: entry, item }) => ({
    id: entry,
    name: item.name,
    hex: cssOf({ palette: entry }, store.effect!),
  })),
);
const MOST_COLOURS = 24;
/** As the picker was opened: what is picked now would push itself in. */
const inEffect = coloursIn(store.effect!).slice(0, MOST_COLOURS);

interface Dropper {
  open(): Promise<{ sRGBHex: string }>;
}
const { EyeDropper } = window as { EyeDropper?: new () => Dropper };
async function takeFromScreen(): Promise<void> {
  // Escape ends it without a colour.
  const taken = await new EyeDropper!().open().catch(() => null);
  if (taken) set(new TinyColor(taken.sRGBHex).toHexString());
}
</script>

<template>
  <div class="picker">
    <ColorPicker
      :id="id"
      :color="shown"
      alpha-channel="hide"
      :visible-formats="['hex']"
      default-format="hex"
      @color-change="pick"
    >
      <template #actions>
        <Button
          v-if="EyeDropper"
          type="text"
          aria-label="Take a colour from the screen"
          title="Take a colour from anywhere on the screen"
          @click="takeFromScreen"
        >
          <BgColorsOutlined />
        </Button>
      </template>
    </ColorPicker>
    <div class="numbers">
      <InputNumber
        v-for="[channel, name] in CHANNELS"
        :key="channel"
        :value="rgb[channel]"
        :min="0"
        :max="255"
        :precision="0"
        :controls="false"
        :aria-label="name"
        :title="name"
        :addon-before="channel.toUpperCase()"
        @change="setChannel(channel, Number($event))"
      />
      <InputNumber
        v-for="[part, name, most] in PARTS"
        :key="part"
        :value="Math.round(hsv[part])"
        :min="0"
        :max="most"
        :precision="0"
        :controls="false"
        :aria-label="name"
        :title="name"
        :addon-before="part.toUpperCase()"
        @change="setPart(part, Number($event))"
      />
    </div>
    <template v-if="palette.length">
      <p class="quiet">Palette</p>
      <div class="swatches">
        <Button
          v-for="entry in palette"
          :key="entry.id"
          class="one"
          :aria-label="entry.name"
          :title="entry.name"
          @click="emit('choose', entry.id)"
        >
          <i :style="{ background: entry.hex }"></i>
        </Button>
      </div>
    </template>
    <template v-if="inEffect.length">
      <p class="quiet">In this effect</p>
      <div class="swatches">
        <Button v-for="each in inEffect" :key="each" class="one" :aria-label="each" :title="each" @click="set(each)">
          <i :style="{ background: each }"></i>
        </Button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.picker {
  width: 236px;
  --vacp-color-background: transparent;
  --vacp-color-background-input: var(--deep);
  --vacp-color-border: #4a4a4e;
  --vacp-color-focus: var(--accent);
  --vacp-font-size: 12.5px;
  --vacp-font-family: inherit;
  --vacp-spacing: 4px;
  --vacp-width-color-space: 236px;
}
.picker :deep(.vacp-color-picker) {
  padding: 0;
}
.picker :deep(.vacp-copy-button) {
  display: none;
}
.numbers {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px;
  margin-top: 6px;
}
.numbers :deep(.ant-input-number-group-addon) {
  padding: 0 5px;
}
.numbers :deep(.ant-input-number-group-wrapper) {
  width: 100%;
}
p {
  margin: 8px 0 3px;
  font-size: 12.5px;
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
}
.one {
  width: 24px;
  height: 24px;
  padding: 2px;
}
i {
  display: block;
  height: 100%;
  border-radius: 2px;
}
</style>
