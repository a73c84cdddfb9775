<script setup lang="ts">
import { ref } from 'vue'
import { refDebounced } from '@vueuse/core'
import type { CookSummary } from '@/api/client'
import AsideNote from '@/shared/ui/AsideNote.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'
import CookLine from './CookLine.vue'
import { useCooks } from './useCooks'

const search = ref('')
const { cooks, aside, more, next, problem, refresh, drop, restore } = useCooks(
  refDebounced(search, 250),
)
const taken = ref<CookSummary>()

async function take(cook: CookSummary) {
  await drop.mutateAsync(cook.id)
  taken.value = cook
}
async function undo() {
  await restore.mutateAsync(taken.value!.id)
  taken.value = undefined
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Log</h1>
      <el-input
        v-if="cooks?.length || search"
        v-model="search"
        clearable
        placeholder="find a cook by its name"
        aria-label="Find a cook by its name"
        data-test="search"
      />
    </header>
    <ProblemNote v-if="problem" :problem="problem" again @again="refresh" />
    <UndoNote v-if="taken" :says="`“${taken.title}” is deleted.`" @undo="undo" />
    <AsideNote :records="aside" />
    <p v-if="!cooks && !problem" class="quiet" role="status">Leafing back…</p>
    <section v-else-if="cooks && !cooks.length">
      <p v-if="search">No cook of that name.</p>
      <template v-else>
        <p>No cook yet. The first one you finish stands here, plan beside actual.</p>
        <RouterLink to="/">Begin one</RouterLink>
      </template>
    </section>
    <ol v-else-if="cooks" class="cooks">
      <CookLine v-for="cook in cooks" :key="cook.id" :cook="cook" @drop="take(cook)" />
    </ol>
    <el-button v-if="more" class="plain-button" data-test="more" @click="next()">
      Leaf further back
    </el-button>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 30px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 12px;
}
h1 {
  font-size: 2rem;
}
header .el-input {
  width: min(340px, 100%);
  --el-input-height: 46px;
}
.cooks {
  list-style: none;
  margin: 0 0 18px;
  padding: 0;
}
</style>
