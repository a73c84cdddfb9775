export { default as PlanPage } from './PlanPage.vue'
export { useDraft, usual } from './draft'
export { loadChoices } from './usePlan'
export { BITES, biteText, sauceText, sentence } from './sentence'
