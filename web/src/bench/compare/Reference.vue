<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { inject, onBeforeUnmount, ref, watch } from 'vue';
import { ENGINE } from '../bench';
import PlainChip from '../chips/PlainChip.vue';

/** A picture or a video of one's own, beside the effect or laid over it. A video runs on the effect's clock. */
const props = defineProps<{ file: File }>();
const emit = defineEmits<{ remove: [] }>();
const engine = inject(ENGINE)!;
const place = defineModel<'beside' | 'over'>('place', { required: true });
const opacity = ref(50);
/** Seconds of the effect at which the video begins. */
const begins = ref(0);
const problem = ref('');
const address = ref('');
const video = ref<HTMLVideoElement>();
const isVideo = () => /^video\//.test(props.file.type);
watch(
  () => props.file,
  (file) => {
    URL.revokeObjectURL(address.value);
    address.value = URL.createObjectURL(file);
    problem.value = '';
  },
  { immediate: true },
);
/** A video that plays runs by itself until it strays; while the effect stands, it stands. */
const STRAY_SECONDS = 0.15;
function follow(): void {
  const film = video.value;
  if (!film || film.readyState === HTMLMediaElement.HAVE_NOTHING) return;
  const seconds = Math.min(film.duration, Math.max(0, engine.state.step / 60 - begins.value));
  const { isPlaying, speed } = engine.state;
  if (!isPlaying || Math.abs(film.currentTime - seconds) > STRAY_SECONDS) film.currentTime = seconds;
  film.playbackRate = Math.max(0.1, speed);
  if (isPlaying && film.paused && seconds < film.duration) void film.play().catch(() => undefined);
  if (!isPlaying && !film.paused) film.pause();
}
watch(begins, follow);
const unheard = engine.playback.listen(follow);
onBeforeUnmount(() => {
  unheard();
  URL.revokeObjectURL(address.value);
});
const fail = () => (problem.value = `${props.file.name} cannot be shown here: use PNG, JPEG, WebP, MP4 or WebM.`);
</script>

<template>
  <div class="reference" :class="place" data-reference>
    <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
    <video
      v-else-if="isVideo()"
      ref="video"
      :src="address"
      muted
      playsinline
      :style="place === 'over' ? { opacity: opacity / 100 } : {}"
      :aria-label="`Reference: ${file.name}`"
      @loadedmetadata="follow"
      @error="fail"
    ></video>
    <img
      v-else
      :src="address"
      :alt="`Reference: ${file.name}`"
      :style="place === 'over' ? { opacity: opacity / 100 } : {}"
      @error="fail"
    />
    <div class="words">
      <Button type="link" @click="place = place === 'over' ? 'beside' : 'over'">
        {{ place === 'over' ? 'Put it beside' : 'Lay it over' }}
      </Button>
      <span v-if="place === 'over'"
        >seen
        <PlainChip
          :value="opacity"
          label="how much of the reference is seen"
          unit="%"
          :least="5"
          :most="100"
          whole
          @change="opacity = $event"
      /></span>
      <span v-if="isVideo()"
        >begins at
        <PlainChip
          :value="begins"
          label="where the video begins"
          unit="s"
          :least="-3600"
          :most="3600"
          @change="begins = $event"
      /></span>
      <Button
        type="text"
        aria-label="Hide the reference"
        title="Hide it. The project keeps it, under Reference"
        @click="emit('remove')"
        >×</Button
      >
    </div>
  </div>
</template>

<style scoped>
.reference {
  position: relative;
  overflow: hidden;
  min-width: 0;
  background: var(--deep);
}
.reference.beside {
  border-left: 2px solid var(--rule);
}
.reference.over {
  position: absolute;
  inset: 0;
  background: none;
  pointer-events: none;
}
img,
video {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.words {
  position: absolute;
  right: 10px;
  bottom: 40px;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 2px 8px;
  border-radius: 4px;
  background: #101011d0;
  pointer-events: auto;
}
.problem {
  padding: 60px 20px;
  color: var(--warn);
}
</style>
