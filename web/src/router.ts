import { createRouter, createWebHistory } from 'vue-router';
import { onSignedOut } from './api';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'home', component: () => import('./home/Home.vue') },
    { path: '/projects/:id', name: 'project', component: () => import('./home/Project.vue'), props: true },
    { path: '/effects/:id', name: 'bench', component: () => import('./bench/Bench.vue'), props: true },
    { path: '/help/:page(.*)*', name: 'guide', component: () => import('./guide/GuideView.vue'), props: true },
    { path: '/sign-in', name: 'sign-in', component: () => import('./home/SignIn.vue') },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});

// Whoever signs in comes back to where they were; what they made meanwhile is kept in the browser.
onSignedOut(() => {
  const { name, fullPath } = router.currentRoute.value;
  if (name !== 'sign-in') void router.push({ name: 'sign-in', query: { to: fullPath } });
});
