import { defineAsyncComponent } from 'vue';

/** Loads the panels. @throws where the server does not answer. */
export const loadPanels = () => import('./panels');
type Panels = Awaited<ReturnType<typeof loadPanels>>;

const late = <Name extends keyof Panels>(name: Name): Panels[Name] =>
  defineAsyncComponent(async () => (await loadPanels())[name]);

export const BenchTour = late('BenchTour');
export const Chapters = late('Chapters');
export const ClashNotice = late('ClashNotice');
export const Compared = late('Compared');
export const ContactSheet = late('ContactSheet');
export const FilmDialog = late('FilmDialog');
export const HandOver = late('HandOver');
export const History = late('History');
export const InWords = late('InWords');
export const LivingTable = late('LivingTable');
export const OtherStage = late('OtherStage');
export const OverTime = late('OverTime');
export const Rail = late('Rail');
export const Reference = late('Reference');
export const Rulers = late('Rulers');
export const Tray = late('Tray');
