export { default as MealPage } from './MealPage.vue'
