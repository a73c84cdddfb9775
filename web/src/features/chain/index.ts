export { useChainDraft } from './draft'
export { default as ChainPage } from './ChainPage.vue'
export { default as FridgePage } from './FridgePage.vue'
