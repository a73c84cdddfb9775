<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { api, ask, type KeptSauce, type SauceDraft } from '@/api/client'
import { fromFile } from './jar'

/** The shelf: every kept sauce as a jar, a new one, and lists from elsewhere. */
const props = defineProps<{ kept: KeptSauce[]; chosen: number | null; more?: boolean }>()
const search = defineModel<string>('search', { default: '' })
const emit = defineEmits<{
  take: [sauce: KeptSauce]
  begin: [from: Partial<SauceDraft>]
  more: []
}>()
const MANY = 10 // from here on a name is found sooner by writing it
const wrong = ref('')
const file = ref<HTMLInputElement>()
const row = ref<HTMLElement>()
// On a phone the row runs off to the side: the open jar is brought into it.
watch(
  () => props.chosen,
  async () => {
    await nextTick()
    row.value?.querySelector('.on')?.scrollIntoView?.({ inline: 'center', block: 'nearest' })
  },
)

/** A sauce as JSON, or an ingredient list as text or CSV. */
async function bring(event: Event) {
  const box = event.target as HTMLInputElement
  const found = box.files?.[0]
  box.value = ''
  if (!found) return
  wrong.value = ''
  const text = await found.text()
  if (/\.json$/i.test(found.name)) {
    try {
      const given = JSON.parse(text) as Partial<SauceDraft> & { document?: Partial<SauceDraft> }
      emit('begin', fromFile(given.document ?? given, found.name.replace(/\.json$/i, '')))
    } catch {
      wrong.value = `${found.name} is not a sauce: accepted is JSON with a name and up to 300 lines, plain text, or CSV.`
    }
    return
  }
  const format = /\.csv$/i.test(found.name) ? 'csv' : 'text'
  const { data, problem } = await ask(() =>
    api.POST('/api/v1/sauces/lines', { body: { format, content: text.slice(0, 100_000) } }),
  )
  if (data) emit('begin', { name: found.name.replace(/\.\w+$/, ''), lines: data.lines })
  else wrong.value = problem?.detail ?? ''
}
</script>

<template>
  <nav class="shelf" aria-label="Kept sauces">
    <el-input
      v-if="kept.length >= MANY || search"
      v-model="search"
      clearable
      class="find"
      placeholder="find a sauce by its name"
      aria-label="Find a sauce by its name"
      data-test="sauce-search"
    />
    <ul ref="row">
      <li>
        <button type="button" class="new" data-test="new-sauce" @click="emit('begin', {})">
          <b>+</b><span>New</span>
        </button>
      </li>
      <li>
        <button type="button" class="new" @click="file?.click()">
          <b>↑</b><span>From a file</span></button
        ><input
          ref="file"
          type="file"
          accept=".json,.csv,.txt,text/plain,text/csv,application/json"
          class="visually-hidden"
          tabindex="-1"
          aria-label="Sauce or ingredient list from a file"
          data-test="bring"
          @change="bring"
        />
      </li>
      <li v-for="s in kept" :key="s.id">
        <button
          type="button"
          :class="{ on: s.id === chosen }"
          :aria-current="s.id === chosen"
          :data-test="`sauce-${s.id}`"
          @click="emit('take', s)"
        >
          <svg viewBox="0 0 40 44" width="34" height="38" aria-hidden="true">
            <rect x="9" y="2" width="22" height="6" rx="2" class="lid" />
            <path d="M6 12 h28 v22 q0 7 -7 7 h-14 q-7 0 -7 -7z" class="glass" />
            <path
              d="M8 22 h24 v12 q0 5 -5 5 h-14 q-5 0 -5 -5z"
              :class="s.document.kind"
              :style="s.colour ? { fill: s.colour } : undefined"
            />
          </svg>
          <span
            >{{ s.document.name
            }}<small>{{ s.document.kind }}{{ s.used_by.length ? ', in a plan' : '' }}</small></span
          >
        </button>
      </li>
      <li v-if="more">
        <button type="button" class="new" @click="emit('more')"><b>…</b><span>More</span></button>
      </li>
    </ul>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </nav>
</template>

<style scoped>
.shelf ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  gap: 4px 10px;
  flex-wrap: wrap;
  border-bottom: 5px solid var(--kettle-line);
}
li {
  display: flex;
  align-items: end;
}
@media (max-width: 640px) {
  .shelf ul {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  li {
    flex: none;
    max-width: 240px;
  }
  li > button:first-child {
    margin-bottom: 0;
  }
}
li > button:first-child {
  display: flex;
  gap: 8px;
  align-items: end;
  border: 0;
  border-bottom: 5px solid transparent;
  margin-bottom: -5px;
  background: transparent;
  padding: 6px 8px 8px;
  min-height: 56px;
  color: var(--kettle-ink);
  font-size: 1rem;
  text-align: left;
  cursor: pointer;
}
li > button.on {
  border-bottom-color: var(--kettle-ember);
  font-weight: 700;
}
li > button:first-child:hover {
  background: var(--kettle-ember-soft);
}
small {
  display: block;
  color: var(--kettle-ink-soft);
  font-weight: 400;
}
.find {
  width: min(340px, 100%);
  --el-input-height: 46px;
  margin-bottom: 8px;
}
.lid {
  fill: var(--kettle-enamel-soft);
}
.glass {
  fill: none;
  stroke: var(--kettle-enamel-soft);
  stroke-width: 2.5;
}
.glaze,
.table {
  fill: var(--kettle-ember);
}
.rub {
  fill: var(--kettle-careful);
}
.marinade,
.braise {
  fill: var(--kettle-hands);
}
.new b {
  font-size: 1.5rem;
  line-height: 1;
  color: var(--kettle-ember);
}
.wrong {
  color: var(--kettle-stop);
}
</style>
