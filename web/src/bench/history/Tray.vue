<script setup lang="ts">
import { Button } from 'ant-design-vue';
import { inject, onMounted, shallowRef } from 'vue';
import { api, type KeptState } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { tell } from '../../tell';
import { when } from '../../when';
import { BELOW } from '../bench';
import { stateChoice } from '../compare/choice';
import { useOther } from '../compare/other';
import TextField from '../chips/TextField.vue';

/** States that were put by, with their pictures: gone on from, compared and taken from, thrown away. */
const store = useEffectStore();
const below = inject(BELOW)!;
const { choice, effect: other } = useOther();
const states = shallowRef<readonly KeptState[]>([]);
/** What was thrown away last, to be brought back. */
const gone = shallowRef<KeptState | null>(null);

const attempt = async (work: () => Promise<unknown>) => {
  try {
    await work();
    states.value = await api.tray(store.id);
  } catch (error) {
    tell(error);
  }
};
onMounted(() => attempt(() => Promise.resolve()));
const open = ({ id, name }: KeptState) =>
  attempt(async () => {
    const { document } = await api.keptState(id);
    store.change(`go on from ${name}`, (draft) => Object.assign(draft, document));
  });
function compare({ id }: KeptState): void {
  other.value = null;
  choice.value = stateChoice(id);
  below.value = 'compared';
}
const rename = ({ id }: KeptState, text: string) => {
  const name = text.trim();
  if (name) void attempt(() => api.renameKept(id, name));
};
const remove = (state: KeptState) =>
  attempt(async () => {
    await api.deleteKept(state.id);
    gone.value = state;
  });
const bringBack = ({ id }: KeptState) =>
  attempt(async () => {
    await api.restoreKept(id);
    gone.value = null;
  });
</script>

<template>
  <section class="tray" aria-label="Tray" tabindex="0">
    <p v-if="states.length === 0" class="quiet">
      Nothing is kept yet. T keeps the effect as it is now, with its picture, while you go on: a lucky accident is
      never lost.
    </p>
    <p v-if="gone" role="status">
      {{ gone.name }} was thrown away.
      <Button type="link" @click="bringBack(gone)">Bring it back</Button>
    </p>
    <ul>
      <li v-for="state in states" :key="state.id">
        <img
          v-if="state.hasPicture"
          :src="api.keptPictureAddress(state.id)"
          :alt="state.name"
          width="240"
          height="150"
        />
        <span v-else class="blank" aria-hidden="true"></span>
        <TextField
          class="name"
          :value="state.name"
          aria-label="name of the state"
          maxlength="80"
          @commit="rename(state, $event)"
        />
        <span class="quiet number">{{ when(state.keptAt) }}{{ state.by && `, ${state.by}` }}</span>
        <span class="acts">
          <Button type="link" title="Make the effect this again; undo takes it back" @click="open(state)">
            Go on
          </Button>
          <Button
            type="link"
            title="What is not the same, line by line; each line can be taken over"
            @click="compare(state)"
          >
            Compare
          </Button>
          <Button type="text" :aria-label="`Throw ${state.name} away`" @click="remove(state)"> Throw away </Button>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.tray {
  min-height: 0;
  overflow-y: auto;
  background: #161617;
  padding: 8px 14px;
  font-size: 13px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, 240px);
  gap: 14px 18px;
}
li {
  display: flex;
  flex-direction: column;
}
img,
.blank {
  display: block;
  width: 240px;
  height: 150px;
  background: var(--deep);
}
.name {
  background: none;
  border: 0;
  padding: 3px 0 0;
}
.acts {
  display: flex;
  justify-content: space-between;
}
.acts .ant-btn {
  padding-left: 0;
  white-space: nowrap;
}
</style>
