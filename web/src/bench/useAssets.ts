import { message } from 'ant-design-vue';
import { onMounted, provide, ref, shallowRef, watch, type Ref } from 'vue';
import { api, type AssetSummary, type ProjectDetail } from '../api';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { tell } from '../tell';
import { useAssetActs } from './acts/useAssetActs';
import { useDrawnActs } from './acts/useDrawnActs';
import { ASSETS, BRING, KIT } from './bench';
import { placeThing } from './values/things';

/** The assets of the project, and what brings others in and uses them. */
export function useAssets(engine: Engine, project: Readonly<Ref<ProjectDetail | null>>) {
  const store = useEffectStore();
  const assets = shallowRef<readonly AssetSummary[]>([]);
  const kit = shallowRef<readonly string[]>([]);
  /** What is being taken in, in words. */
  const importing = ref('');
  watch(project, (now) => (assets.value = now?.assets ?? []));
  onMounted(async () => {
    try {
      kit.value = await api.kit();
    } catch (error) {
      tell(error);
    }
  });

  async function bring(work: Promise<AssetSummary>, name: string): Promise<AssetSummary | null> {
    importing.value = `Taking in ${name}…`;
    try {
      const asset = await work;
      if (!assets.value.some(({ hash }) => hash === asset.hash)) assets.value = [...assets.value, asset];
      // It may be what the effect was missing.
      engine.retryMissing();
      return asset;
    } catch (error) {
      tell(error);
      return null;
    } finally {
      importing.value = '';
    }
  }
  const bringFile = (file: File) => bring(api.importFile(store.projectId, file), file.name);
  const takeFromKit = (file: string) => bring(api.importKit(store.projectId, file), file);
  provide(ASSETS, assets);
  provide(BRING, bringFile);
  provide(KIT, { files: kit, bring: takeFromKit });

  const { show } = useAssetActs(engine);
  const { drawMesh } = useDrawnActs(engine);
  /**
   * What was just taken in is used at once: a figure goes on the stage, or a layer is drawn as it where it was dropped on one; a
   * picture is shown by a layer.
   */
  function use(asset: AssetSummary, layerId: string, isForLayer: boolean): void {
    const layer = store.effect?.layers.byId[layerId];
    if (asset.kind === 'rig' && isForLayer && layer) drawMesh(layerId, asset);
    else if (asset.kind === 'rig')
      store.change(`put ${asset.name} on the stage`, (draft) =>
        placeThing(draft, asset.name, asset.hash, store.newId()),
      );
    else if (!layer) void message.info(`${asset.name} is in the project now. Add a layer to show it.`, 5);
    else show(asset, layerId);
  }
  async function drop(file: File, layerId: string, isForLayer: boolean): Promise<void> {
    const asset = await bringFile(file);
    if (asset) use(asset, layerId, isForLayer);
  }
  /** Takes in a file that was dropped on the stage. */
  const dropFile = (file: File) => void drop(file, store.chosenId, false);
  /** Takes in a file that was dropped on a layer: on its row or on its chapters. */
  const dropOnLayer = (file: File, layerId: string) => void drop(file, layerId, true);
  async function useFromKit(file: string): Promise<void> {
    const asset = await takeFromKit(file);
    if (asset) use(asset, '', false);
  }
  return { assets, kit, importing, dropFile, dropOnLayer, useFromKit };
}
