<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { EventBody } from '@/api/client'
import { stopwatch } from '@/shared/format/time'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import { fireSeconds } from './fire'
import SeenButtons from './SeenButtons.vue'
import { useCookKeys } from './useCookKeys'
import { useLive } from './useLive'
import { useLiveGlaze } from './useLiveGlaze'

/** The call that fills the screen in every room but on its own stove, whose picture becomes urgent
 * instead. Its button tells what is current, and then it is quiet. */
const live = useLive()
const route = useRoute()
const cook = computed(() => (live.call ? live.cookOf(live.call.cook) : undefined))
const glaze = useLiveGlaze(cook)
const elsewhere = computed(
  () => route.name !== 'stove' || Number(route.params.id) !== cook.value?.id,
)
const open = computed(() => Boolean(live.call && cook.value?.fire && elsewhere.value))
const under = computed(() => fireSeconds(cook.value, live.now) ?? 0)
const out = computed(() => live.call?.alarm.level === 'out')
const appliance = computed(() => cook.value?.fire?.appliance ?? 'heat')
const assumed = computed(() => cook.value?.fire?.assumed)

const told = (body: EventBody) => cook.value && void live.tell(cook.value.id, body)
const confirm = () => cook.value?.current && told({ kind: 'done', step: cook.value.current })
const button = ref<{ ref?: HTMLElement }>()
const hush = () => live.call && live.hush(live.call.cook, live.call.alarm)
useCookKeys(cook, told, () => open.value)
</script>

<template>
  <el-dialog
    :model-value="open"
    fullscreen
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
    :lock-scroll="false"
    class="call-screen"
    :class="{ now: out }"
    data-test="call-screen"
    @close="hush"
    @opened="button?.ref?.focus()"
  >
    <template #header="{ titleId }">
      <p class="figure clock">{{ stopwatch(Math.floor(under)) }}</p>
      <h2 :id="titleId">{{ live.call?.alarm.says }}</h2>
    </template>
    <div v-if="cook" class="inside">
      <p class="then">
        <template v-if="assumed">Nobody told me whether it is under the {{ appliance }}.</template>
        <template v-else-if="out">Is it out of the {{ appliance }}?</template>
        <template v-else>{{ cook.detail }}</template>
      </p>
      <el-button ref="button" class="wide-button" data-test="call-done" @click="confirm">
        {{ cook.button }}
      </el-button>
      <SeenButtons
        :cook="cook"
        :bare="glaze && !glaze.caramelises"
        :glaze="glaze"
        @saw="(sign) => told({ kind: 'saw', sign })"
      />
      <div class="small">
        <el-button
          class="plain-button"
          data-test="call-undo"
          :disabled="!cook.undoable"
          @click="told({ kind: 'undo' })"
        >
          Undo
        </el-button>
        <el-button class="plain-button" data-test="hush" @click="hush">I am watching it</el-button>
        <RouterLink class="plain-button" :to="`/stove/${cook.id}`" @click="hush">
          To the stove
        </RouterLink>
      </div>
      <div class="sheet"><GlazeStrip v-if="glaze" :glaze="glaze" :now-s="under" /></div>
    </div>
  </el-dialog>
</template>

<style lang="scss">
.call-screen.el-dialog {
  background: var(--kettle-enamel-deep);
  color: #f6f2e7;
  padding: 20px 24px;
  overflow: auto;

  .el-dialog__header {
    padding: 0;
    text-align: center;
  }
  .el-dialog__body {
    color: inherit;
    max-width: 1000px;
    margin: 0 auto;
  }
  .clock {
    margin: 0;
    font: 700 2.2rem var(--kettle-display);
  }
  h2 {
    color: inherit;
    font-size: clamp(2.6rem, 8vw, 5.4rem);
  }
  &.now {
    background: #7a1608;
  }
  .inside {
    display: grid;
    gap: 14px;
  }
  .then {
    margin: 0;
    text-align: center;
    font: 700 1.4rem var(--kettle-display);
  }
  .wide-button {
    min-height: 120px;
    background: #f6f2e7;
    color: #7a1608;
  }
  .plain-button {
    color: inherit;
    border-color: currentColor;
    background: transparent;
  }
  .small {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
    gap: 10px;
  }
  .sheet {
    background: var(--kettle-paper);
    color: var(--kettle-ink);
    border-radius: 14px;
    padding: 10px 14px 2px;
  }
}
@media (max-width: 640px) {
  .call-screen.el-dialog {
    padding: 12px;
    .wide-button {
      min-height: 96px;
    }
    .then {
      font-size: 1.1rem;
    }
  }
}
</style>
