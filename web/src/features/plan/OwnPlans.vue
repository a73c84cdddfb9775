<script setup lang="ts">
import { computed, ref } from 'vue'
import { refDebounced } from '@vueuse/core'
import type { Chain, Problem } from '@/api/client'
import { usePlans } from './usePlans'
import { day } from '@/shared/format/time'
import AsideNote from '@/shared/ui/AsideNote.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'
import PlanCard from './PlanCard.vue'
import { readFile, saveFile } from './files'

/** The cook's own chains: to open, to find, to let go, and as files to share. */
const emit = defineEmits<{ pick: [chain: Chain, id: number, version: number] }>()
const MANY = 6
const search = ref('')
const { plans, aside, more, next, problem, letGo, dropped, undo, refresh } = usePlans(
  refDebounced(search, 250),
)
type Plan = NonNullable<typeof plans.value>[number]
const refused = ref<Problem>()
const picker = ref<HTMLInputElement>()
const own = computed(() => plans.value ?? [])
const chainOf = (plan: Plan) => plan.dish as unknown as Chain

/** A file becomes a kept plan, or is refused with its faults. */
async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const { data, problem: found } = await readFile(file)
  input.value = ''
  refused.value = found
  if (!data) return
  await refresh()
  emit('pick', data.dish as unknown as Chain, data.id, data.version)
}
</script>

<template>
  <section aria-label="Yours">
    <div class="head">
      <h2>Yours</h2>
      <el-input
        v-if="own.length > MANY || search"
        v-model="search"
        clearable
        placeholder="find one by its name"
        aria-label="Find one of yours by its name"
        data-test="chain-search"
      />
      <el-button class="plain-button" data-test="open-file" @click="picker?.click()">
        Open a file
      </el-button>
      <input
        ref="picker"
        type="file"
        accept=".json,application/json"
        hidden
        data-test="file"
        @change="take"
      />
    </div>
    <ProblemNote v-if="problem" :problem="problem" again @again="refresh" />
    <ProblemNote v-if="refused" :problem="refused" />
    <UndoNote v-if="dropped" :says="`“${dropped.title}” is deleted.`" @undo="undo" />
    <AsideNote :records="aside" />
    <p v-if="plans && !own.length" class="quiet">
      {{ search ? 'None of yours is called that.' : 'What you change below is kept here.' }}
    </p>
    <ul class="card-shelf">
      <li v-for="plan in own" :key="plan.id">
        <PlanCard
          :chain="chainOf(plan)"
          :title="plan.title"
          :says="`changed ${day(plan.updated_at, new Date())}`"
          :data-test="`own-${plan.id}`"
          @pick="$emit('pick', chainOf(plan), plan.id, plan.version)"
        />
        <div class="under">
          <el-button
            text
            :aria-label="`“${plan.title}” as a file`"
            @click="saveFile(chainOf(plan))"
          >
            As a file
          </el-button>
          <el-button text :aria-label="`Delete “${plan.title}”`" @click="letGo(plan)">
            Delete
          </el-button>
        </div>
      </li>
    </ul>
    <el-button v-if="more" class="plain-button" @click="next()">More</el-button>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: center;
  margin-bottom: 12px;
}
h2 {
  margin: 0;
  flex: 1;
}
.el-input {
  width: min(280px, 100%);
  --el-input-height: 46px;
}
li {
  display: flex;
  flex-direction: column;
}
.under {
  display: flex;
  justify-content: flex-end;
}
.under .el-button {
  min-height: 44px;
  margin: 0;
}
</style>
