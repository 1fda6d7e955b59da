<script setup lang="ts">
import {
  AimOutlined,
  BlockOutlined,
  BulbOutlined,
  CameraOutlined,
  ColumnHeightOutlined,
  ColumnWidthOutlined,
  DragOutlined,
  EnvironmentOutlined,
  EyeOutlined,
  FullscreenOutlined,
  KeyOutlined,
  PictureOutlined,
  SearchOutlined,
  SyncOutlined,
  ThunderboltOutlined,
  UserOutlined,
  VideoCameraOutlined,
  ZoomInOutlined,
} from '@ant-design/icons-vue';
import type { View } from '@jinx/player/scene';
import { inject, ref } from 'vue';
import type { AssetSummary } from '../../api';
import { TOOL } from '../bench';
import CarrierChip from '../chips/CarrierChip.vue';
import LensWords from './LensWords.vue';
import { useProbe } from '../reading/probe';
import CameraDrawer from './CameraDrawer.vue';
import FiguresDrawer from './FiguresDrawer.vue';
import LightDrawer from './LightDrawer.vue';
import RailDrawer from './RailDrawer.vue';
import RailTool from './RailTool.vue';
import ReferenceDrawer from './ReferenceDrawer.vue';
import ShownDrawer from './ShownDrawer.vue';

/** What acts on the picture, at its left: drawers of what stands there, and the tools that are used on it. */
defineProps<{ assets: readonly AssetSummary[]; kit: readonly string[]; isImporting: string; hasHits: boolean }>();
const emit = defineEmits<{
  importKit: [file: string];
  importFile: [file: File];
  look: [view: View];
  keep: [];
}>();
const tool = inject(TOOL)!;
const probe = useProbe();
const open = ref<string | null>(null);
</script>

<template>
  <div class="rail" data-guide="bench#rail" role="toolbar" aria-label="The picture" aria-orientation="vertical">
    <RailDrawer v-model:open="open" name="Light" help="the surround, and two lights of your own">
      <BulbOutlined /><template #drawer><LightDrawer /></template>
    </RailDrawer>
    <RailDrawer v-model:open="open" name="Figures" help="who stands on the stage, and what they do" :width="340">
      <UserOutlined /><template #drawer
        ><FiguresDrawer
          :assets="assets"
          :kit="kit"
          :is-importing="isImporting"
          @import-kit="emit('importKit', $event)"
          @import-file="emit('importFile', $event)"
      /></template>
    </RailDrawer>
    <RailDrawer v-model:open="open" name="Carrier" help="what the whole effect rides on" :width="340">
      <EnvironmentOutlined /><template #drawer><CarrierChip /></template>
    </RailDrawer>
    <RailDrawer v-model:open="open" name="Camera" help="where the stage is seen from">
      <VideoCameraOutlined /><template #drawer
        ><CameraDrawer @look="emit('look', $event)" @keep="emit('keep')"
      /></template>
    </RailDrawer>
    <RailDrawer v-model:open="open" name="Lens and air" help="bloom, exposure, reflections, fog" :width="330">
      <CameraOutlined /><template #drawer><LensWords /></template>
    </RailDrawer>
    <RailDrawer v-model:open="open" name="Shown" help="as it is, as grey values, by age and more; guides, raw, dim">
      <EyeOutlined /><template #drawer><ShownDrawer /></template>
    </RailDrawer>
    <RailDrawer v-model:open="open" name="Reference" help="a picture or video of your own to compare with">
      <PictureOutlined /><template #drawer><ReferenceDrawer /></template>
    </RailDrawer>
    <i class="rule"></i>
    <RailTool command="handle.move" name="Move the handle" :is-on="tool === 'move'"><DragOutlined /></RailTool>
    <RailTool command="handle.turn" name="Turn the handle" :is-on="tool === 'turn'"><SyncOutlined /></RailTool>
    <RailTool command="handle.size" name="Size the handle" :is-on="tool === 'size'"><ColumnWidthOutlined /></RailTool>
    <RailTool command="handle.key" name="Key the handle here: it moves from key to key"><KeyOutlined /></RailTool>
    <i class="rule"></i>
    <RailTool
      v-if="hasHits"
      command="stage.strikeTool"
      name="Strike where it is clicked"
      :is-on="probe.isPicking === 'strike'"
      ><ThunderboltOutlined
    /></RailTool>
    <RailTool command="stage.tape" name="Measure from click to click" :is-on="probe.isPicking === 'tape'"
      ><ColumnHeightOutlined
    /></RailTool>
    <RailTool command="glass.particle" name="Look at one particle" :is-on="probe.isPicking === 'particle'"
      ><SearchOutlined
    /></RailTool>
    <RailTool command="glass.pixel" name="Take a pixel apart" :is-on="probe.isPicking === 'pixel'"
      ><ZoomInOutlined
    /></RailTool>
    <i class="rule"></i>
    <RailTool command="stage.frame" name="Frame what is chosen"><AimOutlined /></RailTool>
    <RailTool command="picture.alone" name="The picture alone"><FullscreenOutlined /></RailTool>
    <RailTool command="picture.window" name="The picture in a window of its own"><BlockOutlined /></RailTool>
  </div>
</template>

<style scoped>
.rail {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 1px;
  padding: 6px 0;
  border-right: 1px solid var(--rule);
  overflow: hidden auto;
}
.rule {
  width: 24px;
  flex: none;
  height: 1px;
  margin: 4px 0;
  background: var(--rule);
}
.rail :deep(.rail-button) {
  width: 28px;
  height: 28px;
  padding: 0;
  font-size: 16px;
  flex: none;
}
.rail :deep(.rail-button.open),
.rail :deep(.rail-button.on) {
  background: var(--chip-over);
  color: var(--accent);
  box-shadow: none;
}
</style>
