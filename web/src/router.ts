import { createRouter, createWebHistory } from 'vue-router';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'home', component: () => import('./home/Home.vue') },
    { path: '/projects/:id', name: 'project', component: () => import('./home/Project.vue'), props: true },
    { path: '/effects/:id', name: 'bench', component: () => import('./bench/Bench.vue'), props: true },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
