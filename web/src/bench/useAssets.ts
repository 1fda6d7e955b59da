import { message } from 'ant-design-vue';
import { onMounted, provide, ref, shallowRef, watch, type Ref } from 'vue';
import { api, type AssetSummary, type ProjectDetail } from '../api';
import type { Engine } from '../engine/engine';
import { useEffectStore } from '../stores/effect';
import { tell } from '../tell';
import { ASSETS, BRING, KIT } from './bench';
import { showPicture } from './values/pictures';
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

  /** What was just taken in is used at once: a figure goes on the stage, a picture is shown by a layer. */
  function use(asset: AssetSummary, layerId: string): void {
    if (asset.kind === 'rig')
      store.change(`put ${asset.name} on the stage`, (draft) =>
        placeThing(draft, asset.name, asset.hash, store.newId()),
      );
    else if (!store.effect?.layers.byId[layerId])
      void message.info(`${asset.name} is in the project now. Add a layer to show it.`, 5);
    else store.change(`show ${asset.name}`, (draft) => showPicture(draft, layerId, asset, store.newId()));
  }
  async function dropFile(file: File, layerId = store.chosenId): Promise<void> {
    const asset = await bringFile(file);
    if (asset) use(asset, layerId);
  }
  async function useFromKit(file: string): Promise<void> {
    const asset = await takeFromKit(file);
    if (asset) use(asset, '');
  }
  return { assets, kit, importing, dropFile, useFromKit };
}
