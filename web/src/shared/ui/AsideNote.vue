<script setup lang="ts">
/** Records that cannot be read: named, with what is wrong and what can be done. */
defineProps<{ records: { id: number; title: string; why: string }[] }>()
</script>

<template>
  <aside v-if="records.length" class="aside" role="note" data-test="aside">
    <p v-for="one in records" :key="one.id">
      <b>“{{ one.title }}” is set aside.</b> {{ one.why }}
      <slot :record="one" />
    </p>
    <p class="quiet">
      Nothing of it is lost. <code>kettle check</code> says more, <code>kettle restore</code> brings
      a backup back.
    </p>
  </aside>
</template>

<style scoped>
.aside {
  margin: 14px 0;
  padding: 10px 18px;
  border-radius: 14px;
  background: var(--kettle-careful-soft);
}
p {
  margin: 6px 0;
  overflow-wrap: anywhere;
}
</style>
