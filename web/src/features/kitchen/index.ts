export { default as KitchenPage } from './KitchenPage.vue'
