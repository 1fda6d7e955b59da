import { message } from 'ant-design-vue';
import { onMounted, provide, ref, shallowRef, watch, type Ref } from 'vue';
import { api, type AssetSummary, type ProjectDetail } from '../api';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { tell } from '../tell';
import { useThumbnails } from '../thumbnails/useThumbnails';
import { upload } from '../uploads/uploads';
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

  const { makeOfAssets } = useThumbnails(() => engine.shared);
  watch(assets, (now) => void makeOfAssets(store.projectId, now));
  async function bring(work: Promise<AssetSummary | null>): Promise<AssetSummary | null> {
    try {
      const asset = await work;
      if (!asset) return null;
      if (!assets.value.some(({ hash }) => hash === asset.hash)) assets.value = [...assets.value, asset];
      // It may be what the effect was missing.
      engine.retryMissing();
      return asset;
    } catch (error) {
      tell(error);
      return null;
    }
  }
  const bringFile = (file: File) => bring(upload(file, (watched) => api.importFile(store.projectId, file, watched)));
  async function takeFromKit(file: string): Promise<AssetSummary | null> {
    const [named, ending] = file.split('.');
    const kind = ending === 'glb' ? 'rig' : 'picture';
    const known = assets.value.find((asset) => asset.kind === kind && asset.name.toLowerCase() === named);
    if (known) return known;
    importing.value = `Taking in ${file}…`;
    const asset = await bring(api.importKit(store.projectId, file));
    importing.value = '';
    return asset;
  }
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
  /** Takes files in, each with its progress. All figures are used; of pictures a layer can show the first only. */
  async function drop(files: readonly File[], layerId: string, isForLayer: boolean): Promise<void> {
    const brought = (await Promise.all(files.map(bringFile))).filter((asset) => asset !== null);
    const picture = brought.find(({ kind }) => kind === 'picture');
    for (const asset of brought) if (asset.kind === 'rig' || asset === picture) use(asset, layerId, isForLayer);
  }
  /** Takes in files that were dropped on the stage. */
  const dropFiles = (files: readonly File[]) => void drop(files, store.chosenId, false);
  /** Takes in files that were dropped on a layer: on its row or on its chapters. */
  const dropOnLayer = (files: readonly File[], layerId: string) => void drop(files, layerId, true);
  async function useFromKit(file: string): Promise<void> {
    const asset = await takeFromKit(file);
    if (asset) use(asset, '', false);
  }
  return { assets, kit, importing, dropFiles, dropOnLayer, takeFromKit, useFromKit };
}
