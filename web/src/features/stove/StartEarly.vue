<script setup lang="ts">
import { computed } from 'vue'
import type { Live } from '@/api/client'
import { clock, earlier } from '@/shared/format/time'

/** Starting early moves supper: both times are shown before. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ cook: Live }>()
const emit = defineEmits<{ start: [] }>()
const early = computed(() => earlier(props.cook.serve_at, props.cook.waits_s))
function start() {
  open.value = false
  emit('start')
}
</script>

<template>
  <el-dialog v-model="open" title="Start now?" width="min(520px, 94vw)" class="kettle-dialog">
    <p>
      Now: on the table about <b class="figure">{{ clock(early) }}</b>. As planned: about
      <b class="figure">{{ clock(cook.serve_at) }}</b>.
    </p>
    <div class="two">
      <el-button class="ember-button" data-test="start-early" @click="start">
        Start now, eat {{ clock(early) }}
      </el-button>
      <el-button class="plain-button" data-test="keep-waiting" @click="open = false">
        Wait, eat {{ clock(cook.serve_at) }}
      </el-button>
    </div>
  </el-dialog>
</template>

<style scoped>
.two {
  display: grid;
  gap: 10px;
  margin-top: 14px;
}
</style>
