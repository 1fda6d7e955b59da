<script setup lang="ts">
import { Button, Input, message } from 'ant-design-vue';
import { computed, inject, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../../api';
import { useEffectStore } from '../../stores/effect';
import { useSavingStore } from '../../stores/saving';
import { tell } from '../../tell';
import { BELOW } from '../bench';
import { useOther } from '../compare/other';

/** Which effect this one keeps what it does not change of, and which ones do so of it. */
const store = useEffectStore();
const saving = useSavingStore();
const router = useRouter();
const below = inject(BELOW)!;
const other = useOther();
const name = ref('');
const isMaking = ref(false);
const wished = computed(() => `${store.effect!.name} ${store.kin.siblings.length + 2}`.slice(-80));

async function make(): Promise<void> {
  isMaking.value = true;
  try {
    if (!(await saving.settle()))
      return void message.warning(`No sibling was made: this effect is not saved. ${saving.sentence}`, 6);
    const { id } = await api.addSibling(store.id, name.value.trim() || wished.value);
    await router.push(`/effects/${id}`);
  } catch (error) {
    tell(error);
  } finally {
    isMaking.value = false;
  }
}
async function letGo(): Promise<void> {
  try {
    await api.letSiblingGo(store.id);
    store.kin = { ...store.kin, siblingOf: null };
    void message.info('From now on it is an effect of its own.');
  } catch (error) {
    tell(error);
  }
}
/** Lays it beside another, or with no other the whole family. */
function compare(id: string): void {
  other.effect.value = null;
  other.choice.value = id;
  below.value = 'compared';
}
</script>

<template>
  <p v-if="store.kin.siblingOf">
    It is a sibling of
    <RouterLink :to="`/effects/${store.kin.siblingOf.id}`">{{ store.kin.siblingOf.name }}</RouterLink>, and follows it
    in everything that is the same here.
    <Button type="link" @click="compare(store.kin.siblingOf.id)">What it changes</Button>
    <Button type="link" @click="letGo">Follow it no more</Button>
  </p>
  <p v-if="store.kin.siblings.length">
    Its siblings:
    <template v-for="({ id, name: title }, n) in store.kin.siblings" :key="id"
      >{{ n ? ', ' : '' }}<RouterLink :to="`/effects/${id}`">{{ title }}</RouterLink></template
    >.
  </p>
  <p v-if="store.kin.siblingOf || store.kin.siblings.length">
    <Button type="link" @click="compare('')">Lay them side by side</Button>
  </p>
  <form @submit.prevent="make">
    <p>
      A sibling keeps of this effect what it does not change: what is changed here later is changed there too.
      <Input
        v-model:value="name"
        class="name"
        :maxlength="80"
        :placeholder="wished"
        aria-label="name of the sibling"
      />
      <Button html-type="submit" type="link" :disabled="isMaking">Make a sibling</Button>
    </p>
  </form>
</template>

<style scoped>
.name {
  width: 190px;
}
a {
  color: var(--accent);
  text-decoration: underline;
}
</style>
