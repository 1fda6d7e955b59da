<script setup lang="ts">
import { Alert as AAlert, Button as AButton } from 'ant-design-vue';
import { inject } from 'vue';
import { ENGINE } from '../bench';

/** What went wrong with the stage or the simulation, and the way on. */
const engine = inject(ENGINE)!;
const { failure } = engine;
</script>

<template>
  <AAlert
    v-if="failure"
    class="failure"
    :type="failure.isRestarted ? 'warning' : 'error'"
    show-icon
    closable
    :message="failure.sentence"
    :description="
      failure.isRestarted
        ? 'It was started again with the effect as it is. Nothing of your work is lost.'
        : 'Nothing of your work is lost. Start it again, or change what it asks for.'
    "
    @close="engine.failure.value = null"
  >
    <template v-if="!failure.isRestarted" #action>
      <AButton size="small" type="primary" @click="engine.restart()">Start again</AButton>
    </template>
  </AAlert>
</template>

<style scoped>
.failure {
  position: absolute;
  bottom: 40px;
  left: 50%;
  width: min(520px, calc(100% - 24px));
  transform: translateX(-50%);
  z-index: 3;
}
</style>
