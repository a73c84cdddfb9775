export { default as CookPage } from './CookPage.vue'
export { default as LogPage } from './LogPage.vue'
