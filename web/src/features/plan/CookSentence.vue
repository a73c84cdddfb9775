<script setup lang="ts">
import { computed } from 'vue'
import type { Choices, Dish, Fault } from '@/api/client'
import { useKitchenFigures } from '@/shared/composables/useKitchenFigures'
import { useUnits } from '@/shared/composables/useUnits'
import { faultsOf, otherFaults, sentence } from './sentence'
import SentencePart from './SentencePart.vue'

const props = defineProps<{ dish: Dish; choices: Choices; faults: Fault[]; now: Date }>()
const { kitchen, degrees } = useUnits()
const { known } = useKitchenFigures()
const tokens = computed(() =>
  sentence(
    props.dish,
    props.choices,
    kitchen.value,
    props.now,
    degrees.value,
    known.value?.figures,
  ),
)
const rest = computed(() => otherFaults(props.faults, tokens.value))
</script>

<template>
  <div>
    <p class="sentence" data-test="sentence">
      <template v-for="(token, i) in tokens" :key="token.part ?? i">
        <SentencePart
          v-if="token.part"
          :part="token.part"
          :text="token.text"
          :dish="dish"
          :choices="choices"
          :faults="faultsOf(token.part, faults)"
        />
        <span v-else>{{ token.text }}</span>
      </template>
    </p>
    <p v-for="fault in rest" :key="fault.field" class="rest" role="alert">
      {{ fault.field }}: {{ fault.accepted }}
    </p>
  </div>
</template>

<style scoped>
.sentence {
  font: 500 1.72rem/1.5 var(--kettle-display);
  margin: 0;
  text-wrap: pretty;
}
.rest {
  color: var(--kettle-stop);
}
@media (max-width: 640px) {
  .sentence {
    font-size: 1.32rem;
    line-height: 44px;
  }
}
</style>
