<script setup lang="ts">
import { Button, Tooltip } from 'ant-design-vue';
import { api, type AssetSummary } from '../api';

/** The files that an asset can be saved as. */
const props = defineProps<{ projectId: string; asset: AssetSummary }>();
const address = (as: 'open' | 'original') => api.assetFile(props.projectId, props.asset.hash, as);
</script>

<template>
  <span class="files">
    <Tooltip
      :title="
        asset.kind === 'rig' ? 'Save it as binary glTF: mesh, skeleton, clips, texture' : 'Save it as a picture'
      "
    >
      <Button
        type="link"
        size="small"
        :href="address('open')"
        download
        :aria-label="`Save ${asset.name} as ${asset.kind === 'rig' ? 'GLB' : 'PNG'}`"
        >{{ asset.kind === 'rig' ? 'GLB' : 'PNG' }}</Button
      >
    </Tooltip>
    <Tooltip v-if="asset.originalName" :title="`Save ${asset.originalName} as it was brought in`">
      <Button type="link" size="small" :href="address('original')" download :aria-label="`As brought: ${asset.name}`"
        >As brought</Button
      >
    </Tooltip>
  </span>
</template>

<style scoped>
.files {
  display: flex;
  align-items: baseline;
  gap: 2px;
}
</style>
