<script setup lang="ts">
import { settingHelp } from '../help/settingHelp';
import { SETTINGS_TABLES } from './settingsTables';

/** All settings, as their declarations say. */
const count = SETTINGS_TABLES.reduce((sum, { settings }) => sum + settings.length, 0);
</script>

<template>
  <h1>All settings</h1>
  <p>
    {{ count }} settings. Each has a base, and most can be shaped. The words after it are what the trade also calls
    it: the box finds it by any of them.
  </p>
  <section v-for="{ id, title, settings } in SETTINGS_TABLES" :key="id">
    <h2 :id="id">{{ title }}</h2>
    <table>
      <tbody>
        <tr v-for="[name, declaration] in settings" :id="`${id}:${name}`" :key="name">
          <th scope="row">
            {{ declaration.name }}
            <span v-if="declaration.otherWords?.length" class="also">{{ declaration.otherWords.join(', ') }}</span>
          </th>
          <td>{{ settingHelp(declaration).join(' ') }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  content-visibility: auto;
  contain-intrinsic-size: auto 300px;
}
th {
  width: 34%;
  font-weight: 600;
}
.also {
  display: block;
  font-weight: 400;
  color: var(--dim);
}
</style>
