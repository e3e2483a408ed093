import { createRouter, createWebHistory } from 'vue-router'
import HomeView from '../home/HomeView.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: HomeView, meta: { title: 'Home' } },
    { path: '/blend', component: () => import('../blend/BlendShelf.vue'), meta: { title: 'Blend' } },
    { path: '/blend/bring', component: () => import('../blend/BringView.vue'), meta: { title: 'Bring in' } },
    { path: '/blend/label', component: () => import('../blend/LabelView.vue'), meta: { title: 'Bought blend' } },
    {
      path: '/blend/weigh/:id',
      component: () => import('../weigh/WeighOut.vue'),
      props: true,
      meta: { title: 'Weigh-out' },
    },
    { path: '/shelf', component: () => import('../shelf/ShelfView.vue'), meta: { title: 'Shelf' } },
    { path: '/blend/:id', component: () => import('../blend/BlendBench.vue'), props: true, meta: { title: 'Blend' } },
    { path: '/coat/:id?', component: () => import('../coat/CoatView.vue'), props: true, meta: { title: 'Coat' } },
    {
      path: '/day/:id/sheet',
      component: () => import('../day/SheetView.vue'),
      props: true,
      meta: { title: 'The day on one page' },
    },
    { path: '/day/:id?', component: () => import('../day/DayView.vue'), props: true, meta: { title: 'Day' } },
    { path: '/table/:id?', component: () => import('../table/TableView.vue'), props: true, meta: { title: 'Table' } },
    {
      path: '/table/:id/design',
      component: () => import('../table/DesignView.vue'),
      props: true,
      meta: { title: 'The trial' },
    },
    {
      path: '/table/:id/paper',
      component: () => import('../table/PaperView.vue'),
      props: true,
      meta: { title: 'Paper cards' },
    },
    {
      path: '/table/:id/print',
      component: () => import('../table/PrintView.vue'),
      props: true,
      meta: { title: 'Print' },
    },
    {
      path: '/table/:id/reveal',
      component: () => import('../table/RevealView.vue'),
      props: true,
      meta: { title: 'Reveal' },
    },
    { path: '/verdict', component: () => import('../verdict/AcrossView.vue'), meta: { title: 'Verdict' } },
    {
      path: '/verdict/known',
      component: () => import('../verdict/KnownView.vue'),
      meta: { title: 'What we know' },
    },
    {
      path: '/verdict/cut/:cut',
      component: () => import('../verdict/CellView.vue'),
      props: true,
      meta: { title: 'Evidence' },
    },
    {
      path: '/verdict/:id',
      component: () => import('../verdict/VerdictView.vue'),
      props: true,
      meta: { title: 'Verdict' },
    },
    { path: '/fire/:id?', component: () => import('../fire/FireView.vue'), props: true, meta: { title: 'Fire' } },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
  scrollBehavior: () => ({ top: 0 }),
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title)} · Ravska`
})
