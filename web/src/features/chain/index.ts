export { useChainDraft } from './draft'
export { default as ChainPage } from './ChainPage.vue'
export { default as ComparePage } from './ComparePage.vue'
export { default as FridgePage } from './FridgePage.vue'
