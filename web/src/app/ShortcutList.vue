<script setup lang="ts">
const open = defineModel<boolean>({ required: true })
const keys: [string, string][] = [
  ['h', 'what is next'],
  ['p', 'Plan'],
  ['m', 'Meal'],
  ['s', 'Stove'],
  ['l', 'Log'],
  ['g', 'Sauces (what goes on)'],
  ['k', 'Kitchen'],
  ['space', 'Stove: the wide button'],
  ['2', 'Stove: it was two minutes ago'],
  ['+', 'Stove: one minute more'],
  ['u', 'Stove: undo'],
  ['n  b  a  d', 'Stove: I see nothing yet, bubbling, amber edges, dark'],
  ['?', 'this list'],
]
</script>

<template>
  <el-dialog v-model="open" title="Keys" width="min(520px, 94vw)" class="kettle-dialog">
    <dl class="keys">
      <template v-for="[key, what] in keys" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </el-dialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 10px 18px;
  margin: 0;
}
.keys dd {
  margin: 0;
}
kbd {
  font: 700 1rem var(--kettle-text);
  border: 1px solid var(--kettle-line);
  border-radius: 6px;
  padding: 2px 10px;
}
</style>
