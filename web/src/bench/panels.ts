// All of the bench beside its stage, in one file that is loaded after the first picture: late.ts.
export { default as FilmDialog } from '../film/FilmDialog.vue';
export { default as BenchTour } from '../guide/tour/BenchTour.vue';
export { default as HandOver } from '../parcels/HandOver.vue';
export { default as Chapters } from './Chapters.vue';
export { default as Compared } from './compare/Compared.vue';
export { default as ContactSheet } from './compare/ContactSheet.vue';
export { default as OtherStage } from './compare/OtherStage.vue';
export { default as Reference } from './compare/Reference.vue';
export { default as ClashNotice } from './history/ClashNotice.vue';
export { default as History } from './history/History.vue';
export { default as Tray } from './history/Tray.vue';
export { default as Rail } from './rail/Rail.vue';
export { default as InWords } from './reading/InWords.vue';
export { default as LivingTable } from './reading/LivingTable.vue';
export { default as OverTime } from './reading/OverTime.vue';
export { default as Rulers } from './Rulers.vue';
