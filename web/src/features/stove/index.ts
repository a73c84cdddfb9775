export { default as StovePage } from './StovePage.vue'
