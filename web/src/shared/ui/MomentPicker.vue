<script setup lang="ts">
/** A day and a time of the clock, from today on. */
import dayjs from 'dayjs'

const value = defineModel<Date | null>({ required: true })
const props = defineProps<{ id: string; now: Date; placeholder?: string }>()
const isPast = (at: Date) => dayjs(at).isBefore(props.now, 'day')
</script>

<template>
  <el-date-picker
    :id="id"
    v-model="value"
    type="datetime"
    class="figure"
    format="ddd D MMM YYYY, HH:mm"
    time-format="HH:mm"
    date-format="D MMM YYYY"
    :placeholder="placeholder"
    :clearable="false"
    :show-now="false"
    :disabled-date="isPast"
    placement="bottom-start"
    popper-class="when-list"
  />
</template>
