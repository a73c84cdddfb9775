<script setup lang="ts">
/** What can still be done and be on time; and a trial of the next heat while a machine works. */
import { useStorage } from '@vueuse/core'
import type { Live } from '@/api/client'
import { clock } from '@/shared/format/time'

const props = defineProps<{ cook: Live }>()
const declined = useStorage<number[]>('kettle-no-scout', [])
const decline = () => (declined.value = [...declined.value.slice(-20), props.cook.id])
</script>

<template>
  <section v-if="cook.exits.length" class="exits" aria-label="Still possible" data-test="exits">
    <h2>Still possible</h2>
    <p v-for="one in cook.exits" :key="one.do" :title="one.why">
      <b class="figure">until {{ clock(one.closes_at) }}</b> {{ one.do }}
    </p>
  </section>
  <section
    v-if="cook.scout && !declined.includes(cook.id)"
    class="scout"
    aria-label="A trial"
    data-test="scout"
  >
    <p>{{ cook.scout.says }}</p>
    <RouterLink class="plain-button" to="/kitchen">Watch it in Kitchen</RouterLink>
    <el-button class="plain-button" data-test="no-scout" @click="decline">Not tonight</el-button>
  </section>
</template>

<style scoped>
.exits {
  margin-top: 16px;
}
.exits p,
.scout p {
  margin: 0 0 6px;
}
.exits b {
  display: inline-block;
  min-width: 7.2ch;
}
.scout {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 14px;
}
</style>
