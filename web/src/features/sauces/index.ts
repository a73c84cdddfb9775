export { default as SaucesPage } from './SaucesPage.vue'
