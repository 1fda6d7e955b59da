<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { onMounted, ref, shallowRef } from 'vue';
import { api, type Start } from '../api';
import { openGuide } from '../guide/useGuide';
import { tell } from '../tell';
import MovingPicture from '../thumbnails/MovingPicture.vue';

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
const stripOf = ({ id, instants, rest }: Start) => ({ address: `/starts/${id}.webp`, instants, rest });
/** Which one is pointed at, or has the focus. */
const playing = ref<string | null>(null);
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
        <Button
          type="text"
          class="start"
          :disabled="isBusy"
          @click="emit('begin', start)"
          @pointerenter="playing = start.id"
          @pointerleave="playing = null"
          @focus="playing = start.id"
          @blur="playing = null"
        >
          <MovingPicture class="strip" :strip="stripOf(start)" :plays="playing === start.id" />
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
}
.start:hover .strip,
.start:focus-visible .strip {
  box-shadow: 0 0 0 2px var(--accent);
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
