export { useChainDraft } from './draft'
export { default as ChainPage } from './ChainPage.vue'
