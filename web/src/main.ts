import '@fontsource-variable/source-sans-3';
import 'ant-design-vue/dist/reset.css';
import './styles.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { enterWindow } from './keeping/thisWindow';
import { router } from './router';

enterWindow();
createApp(App).use(createPinia()).use(router).mount('#app');
