<script setup lang="ts">
import { ref, useId, watch } from 'vue'
import { minutesOf } from './minutes'

/** Several minutes under the heat, as people write them: "2, 5". What cannot be read stays and is told. */
const props = defineProps<{ field: string; label: string; value: number[]; hint: string }>()
const emit = defineEmits<{ change: [minutes: number[]] }>()
const id = useId()
const text = ref(props.value.join(', '))
const wrong = ref('')
watch(
  () => props.value,
  (next) => {
    if (minutesOf(text.value)?.join() !== next.join()) text.value = next.join(', ')
  },
)

function put(next: string) {
  text.value = next
  const found = minutesOf(next)
  wrong.value = found ? '' : `“${next}” is not a list of minutes like 2, 5`
  if (found) emit('change', found)
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <div class="row">
      <el-input
        :id="id"
        v-model="text"
        class="figure"
        inputmode="decimal"
        autocomplete="off"
        :data-test="field"
        :aria-describedby="`${id}-hint`"
        @change="put"
      /><span>min</span>
    </div>
    <p :id="`${id}-hint`" class="quiet">{{ hint }}</p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 4px;
}
label {
  font-weight: 700;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.el-input {
  width: 150px;
}
p {
  margin: 0;
  font-size: 0.95rem;
}
.wrong {
  color: var(--kettle-stop);
}
</style>
