<script setup lang="ts">
import { Button, Input } from 'ant-design-vue';
import { onMounted, ref, shallowRef } from 'vue';
import { api, type Members, type Role } from '../api';
import { tell } from '../tell';
import SelectField from '../SelectField.vue';

/** Who may do what in a project, where people sign in. */
const props = defineProps<{ projectId: string }>();
const found = shallowRef<Members | null>(null);
const name = ref('');
const ROLES: readonly (readonly [Role, string])[] = [
  ['viewer', 'may look'],
  ['editor', 'may change'],
  ['owner', 'decides'],
];
const textOf = (role: Role) => ROLES.find(([one]) => one === role)![1];

async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    await work();
  } catch (error) {
    tell(error);
  } finally {
    found.value = await api.members(props.projectId).catch(() => found.value);
  }
}
onMounted(() => attempt(() => Promise.resolve()));
const add = () =>
  attempt(async () => {
    await api.setRole(props.projectId, name.value.trim(), 'editor');
    name.value = '';
  });
const set = (member: string, role: string) => attempt(() => api.setRole(props.projectId, member, role as Role));
const remove = (id: string) => attempt(() => api.removeMember(props.projectId, id));
</script>

<template>
  <section v-if="found?.hasSignIn">
    <h2>Members</h2>
    <ul class="list" aria-label="Members">
      <li v-for="member in found.members" :key="member.id">
        <span>{{ member.name }}</span>
        <span v-if="found.role !== 'owner'" class="quiet">{{ textOf(member.role) }}</span>
        <template v-else>
          <SelectField
            :value="member.role"
            :options="ROLES.map(([value, label]) => ({ value, label }))"
            :label="`what ${member.name} may do`"
            @change="set(member.name, String($event))"
          />
          <Button type="text" :aria-label="`Take ${member.name} out`" @click="remove(member.id)"> Take out </Button>
        </template>
      </li>
    </ul>
    <form v-if="found.role === 'owner'" class="new" @submit.prevent="add">
      <Input v-model:value="name" placeholder="Name of who is to join" aria-label="who is to join" :maxlength="80" />
      <Button html-type="submit" type="link" :disabled="!name.trim()">Let them change things here</Button>
    </form>
  </section>
</template>

<style scoped src="./home.css"></style>
