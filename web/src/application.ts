import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { enterWindow } from './keeping/thisWindow';
import { router } from './router';

enterWindow();
createApp(App).use(createPinia()).use(router).mount('#app');
