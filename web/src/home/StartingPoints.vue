<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { onMounted, shallowRef } from 'vue';
import { api, type Start } from '../api';
import { openGuide } from '../guide/useGuide';
import { tell } from '../tell';

/** Effects to begin with, by what they are for. Their pictures play under the pointer or the key's focus. */
defineProps<{ isBusy: boolean }>();
const emit = defineEmits<{ begin: [start: Start] }>();
const starts = shallowRef<readonly Start[]>([]);
onMounted(async () => {
  try {
    starts.value = await api.starts();
  } catch (error) {
    tell(error);
  }
});
/** Its instants stand side by side in one picture. */
const strip = ({ id, instants, rest }: Start) => ({
  backgroundImage: `url(/starts/${id}.webp)`,
  backgroundSize: `${instants * 100}% 100%`,
  backgroundPosition: `${(100 * rest) / (instants - 1)}% 0`,
  animationTimingFunction: `steps(${instants}, jump-none)`,
});
</script>

<template>
  <section>
    <h2>Starting points</h2>
    <p class="quiet words">
      Each becomes an effect of its own in this project, with the figures and pictures it uses: take it apart. Point
      at one to see it play.
    </p>
    <ul class="starts">
      <li v-for="start in starts" :key="start.id">
        <Button type="text" class="start" :disabled="isBusy" @click="emit('begin', start)">
          <span class="strip" :style="strip(start)"></span>
          <span class="name">{{ start.intent }}</span>
          <span class="about">{{ start.about }}</span>
        </Button>
        <Button
          type="link"
          class="taught"
          :aria-label="`How it is made: ${start.intent}`"
          @click="openGuide(`starts/${start.id}`)"
        >
          How it is made
        </Button>
      </li>
    </ul>
  </section>
</template>

<style scoped src="./home.css"></style>
<style scoped>
.words {
  margin: 4px 0 0;
}
.starts {
  /* Their pictures are large: they are decoded only where they are seen. */
  content-visibility: auto;
  contain-intrinsic-size: auto 620px;
  list-style: none;
  padding: 0;
  margin: 14px 0 0;
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 18px;
}
.start {
  display: block;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink);
  text-align: left;
  cursor: pointer;
}
.start:disabled {
  cursor: default;
  opacity: 0.5;
}
.strip {
  display: block;
  width: 100%;
  aspect-ratio: 8 / 5;
  border-radius: 4px;
  background-color: var(--deep);
}
.start:hover .strip,
.start:focus-visible .strip {
  box-shadow: 0 0 0 2px var(--accent);
  animation-name: play;
  animation-duration: 2s;
  animation-iteration-count: infinite;
}
@keyframes play {
  from {
    background-position: 0 0;
  }
  to {
    background-position: 100% 0;
  }
}
@media (prefers-reduced-motion: reduce) {
  .start:hover .strip,
  .start:focus-visible .strip {
    animation-name: none;
  }
}
.taught {
  margin-left: -4px;
  font-size: 12.5px;
}
.name {
  display: block;
  padding-top: 5px;
}
.about {
  display: block;
  font-size: 12.5px;
  color: var(--dim);
}
.start:hover .name {
  color: var(--accent);
}
</style>
