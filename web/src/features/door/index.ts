export { useDoor } from './useDoor'
export { default as JoinPage } from './JoinPage.vue'
export { default as OtherDevice } from './OtherDevice.vue'
