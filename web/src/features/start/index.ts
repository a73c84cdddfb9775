export { default as StartPage } from './StartPage.vue'
