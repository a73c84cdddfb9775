<script setup lang="ts">
/** Something was changed in another place since it was opened here. */
defineProps<{ what: string }>()
defineEmits<{ theirs: []; mine: [] }>()
</script>

<template>
  <div class="changed" role="alert" data-test="changed">
    <b>{{ what }} was changed in another place.</b>
    <el-button class="plain-button" data-test="take-theirs" @click="$emit('theirs')">
      Take that one
    </el-button>
    <el-button class="plain-button" data-test="keep-mine" @click="$emit('mine')">
      Keep this one
    </el-button>
  </div>
</template>

<style scoped>
.changed {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: center;
  padding: 12px 18px;
  border-radius: 14px;
  background: var(--kettle-careful-soft);
}
</style>
