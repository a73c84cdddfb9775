<script setup lang="ts">
import { nextTick, ref } from 'vue'
import type { ReadLine } from '@/api/client'

/** Ingredient lines, typed as on paper; what each was read as stands at its end, and what could not be read stays. */
const lines = defineModel<string[]>({ required: true })
const props = defineProps<{ read: ReadLine[] }>()
const box = ref<HTMLElement>()
const MOST = 300
const tooMany = ref('')

/** The reading of a line: the server leaves empty lines out. */
function reading(i: number): ReadLine | undefined {
  if (!lines.value[i]?.trim()) return undefined
  const place = lines.value.slice(0, i).filter((line) => line.trim()).length
  const found = props.read[place]
  // By whole characters: an emoji is one to the server.
  return found &&
    found.text ===
      [...lines.value[i]!.split(/\s+/).filter(Boolean).join(' ')].slice(0, 200).join('')
    ? found
    : undefined
}

function grams(line: ReadLine): string {
  const mass = line.mass_g
  if (!mass) return ''
  const show = (g: number) =>
    g >= 30
      ? Math.round(g).toString()
      : g >= 1
        ? g.toFixed(1).replace(/\.0$/, '')
        : g.toPrecision(2)
  return mass.high > mass.low * 1.02
    ? `${show(mass.low)}–${show(mass.high)} g`
    : `${show(mass.likely)} g`
}

async function focus(i: number) {
  await nextTick()
  box.value?.querySelectorAll('input')[Math.max(0, Math.min(i, lines.value.length - 1))]?.focus()
}

function put(i: number, text: string) {
  lines.value = lines.value.map((line, at) => (at === i ? text : line))
}

function add(i: number) {
  lines.value = [...lines.value.slice(0, i + 1), '', ...lines.value.slice(i + 1)]
  void focus(i + 1)
}

function remove(i: number) {
  lines.value = lines.value.length > 1 ? lines.value.filter((_, at) => at !== i) : ['']
  void focus(i - 1)
}

function paste(i: number, event: ClipboardEvent) {
  const text = event.clipboardData?.getData('text') ?? ''
  if (!text.includes('\n')) return
  event.preventDefault()
  const found = text
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter(Boolean)
  const before = lines.value.slice(0, i).filter((l) => l.trim())
  const after = lines.value.slice(i).filter((l) => l.trim())
  const room = MOST - before.length - after.length
  tooMany.value =
    found.length > room
      ? `${found.length} lines are too many: a recipe has up to ${MOST}. Nothing was put in.`
      : ''
  if (tooMany.value) return
  lines.value = [...before, ...found, ...after]
  void focus(i + found.length - 1)
}

/** A suggestion takes the place of the words that were not understood. */
function take(i: number, name: string) {
  const line = lines.value[i]!
  const unknown = reading(i)?.unknown
  put(
    i,
    /^[\d½¼¾]/.test(name) || !unknown || !line.includes(unknown)
      ? name
      : line.replace(unknown, name),
  )
}
</script>

<template>
  <ol ref="box" class="lines">
    <li v-for="(line, i) in lines" :key="i" :class="{ wrong: reading(i)?.problem }">
      <input
        :value="line"
        :aria-label="`Ingredient line ${i + 1}`"
        :data-test="`line-${i}`"
        :placeholder="i === 0 ? '1 1/2 cups ketchup' : ''"
        autocomplete="off"
        spellcheck="false"
        :aria-describedby="reading(i)?.problem ? `line-${i}-note` : undefined"
        @input="put(i, ($event.target as HTMLInputElement).value)"
        @keydown.enter.prevent="add(i)"
        @keydown.backspace="!line && lines.length > 1 && ($event.preventDefault(), remove(i))"
        @paste="paste(i, $event)"
      />
      <span class="mass figure">{{ reading(i) ? grams(reading(i)!) : '' }}</span>
      <button type="button" class="gone" :aria-label="`remove line ${i + 1}`" @click="remove(i)">
        ×
      </button>
      <p v-if="reading(i)?.problem" :id="`line-${i}-note`" class="note">
        Not counted: {{ reading(i)!.problem }}.
        <button
          v-for="name in reading(i)!.suggestions"
          :key="name"
          type="button"
          @click="take(i, name)"
        >
          {{ name }}?
        </button>
      </p>
    </li>
  </ol>
  <p v-if="tooMany" class="many" role="alert">{{ tooMany }}</p>
  <el-button class="plain-button more" data-test="add-line" @click="add(lines.length - 1)">
    Another line
  </el-button>
</template>

<style scoped>
.lines {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto 44px;
  align-items: center;
  border-bottom: 1px solid var(--kettle-line);
}
input {
  border: 0;
  background: transparent;
  color: var(--kettle-ink);
  font-size: 1.12rem;
  min-height: 46px;
  padding: 4px 2px;
  min-width: 0;
  width: 100%;
}
input::placeholder {
  color: var(--kettle-ink-soft);
  opacity: 0.7;
}
.mass {
  color: var(--kettle-ink-soft);
  font-weight: 700;
  padding-left: 8px;
  white-space: nowrap;
}
.gone {
  border: 0;
  background: transparent;
  color: var(--kettle-ink-soft);
  font-size: 1.4rem;
  min-height: 44px;
  cursor: pointer;
}
.wrong {
  border-bottom-color: var(--kettle-careful);
}
.note {
  grid-column: 1 / -1;
  margin: 0 0 8px;
  color: var(--kettle-careful);
  font-size: 0.98rem;
}
.note button {
  border: 0;
  border-bottom: 2px solid var(--kettle-ember);
  background: transparent;
  color: var(--kettle-ink);
  font-size: 1rem;
  min-height: 34px;
  margin-left: 8px;
  cursor: pointer;
}
.more {
  margin-top: 12px;
}
.many {
  margin: 10px 0 0;
  border-left: 6px solid var(--kettle-careful);
  padding-left: 12px;
}
</style>
