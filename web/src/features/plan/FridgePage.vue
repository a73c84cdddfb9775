<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '@/shared/composables/useUnits'
import { useClock } from '@/shared/composables/useClock'
import BackToPlan from './BackToPlan.vue'
import GlazeStrip from '@/shared/ui/GlazeStrip.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { card, markdown } from './card'
import { download, fileName } from './files'
import { usePlan } from './usePlan'

/** One page for the fridge's door: what to lay out, the clock, the fires, what to mind. */
const { draft, forecast, problem, stale, refresh } = usePlan(() => undefined)
const now = useClock(30_000)
const { degrees } = useUnits()
const page = computed(() => forecast.value && card(forecast.value, now.value, degrees.value))
// A long cook is set closer, so that it stays one page. In lines of text; a strip is worth eight.
const [CLOSE, CLOSER, STRIP] = [30, 40, 8]
const size = computed(() => {
  const { lines = [], fires = [], mind = [] } = page.value ?? {}
  const all = lines.length + STRIP * Math.ceil(fires.length / 2) + mind.length / 2
  return all > CLOSER ? 'closer' : all > CLOSE ? 'close' : ''
})

function asText() {
  const text = markdown(page.value!)
  download(fileName(page.value!.title, '.md'), text, 'text/markdown')
}
const print = () => window.print()
</script>

<template>
  <div class="page fridge">
    <div class="tools no-print">
      <BackToPlan />
      <template v-if="page">
        <el-button class="ember-button" :disabled="stale" data-test="print" @click="print">
          Print it
        </el-button>
        <el-button class="plain-button" :disabled="stale" data-test="as-text" @click="asText">
          As text
        </el-button>
      </template>
    </div>
    <ProblemNote v-if="problem" :problem="problem" again @again="refresh()" />
    <p v-if="!draft.chain">Nothing is planned here. Pick a cook first.</p>
    <p v-else-if="!page && !problem" class="quiet" role="status">Working out the times…</p>
    <article v-if="page && forecast" class="paper light-sheet" :class="size" data-test="paper">
      <header>
        <h1>{{ page.title }}</h1>
        <p class="when figure">{{ page.when }}</p>
      </header>
      <section class="clock">
        <h2>By the clock</h2>
        <table class="figure">
          <tbody>
            <tr v-for="one in page.lines" :key="one.key" :class="one.who">
              <th scope="row">{{ one.at }}</th>
              <td>{{ one.text }}</td>
              <td class="long">{{ one.long }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <section class="lay">
        <h2>Lay out</h2>
        <div v-for="shelf in page.lay" :key="shelf.title">
          <h3>{{ shelf.title }}</h3>
          <ul>
            <li v-for="thing in shelf.things" :key="thing">{{ thing }}</li>
          </ul>
        </div>
      </section>
      <section
        v-for="(fire, i) in page.fires"
        :key="fire.stage"
        class="under"
        :class="{ half: page.fires.length > 1 }"
      >
        <h2>{{ fire.says }}</h2>
        <GlazeStrip :glaze="forecast.fires[i]!.glaze" compact />
        <p class="marks figure">
          <span v-for="mark in fire.marks" :key="mark.at + mark.text">
            <b>{{ mark.at }}</b> {{ mark.text }}
          </span>
        </p>
      </section>
      <section class="mind">
        <h2>Mind</h2>
        <ul>
          <li v-for="one in page.mind" :key="one">{{ one }}</li>
        </ul>
      </section>
    </article>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-bottom: 18px;
}
.tools .el-button {
  margin: 0;
  text-decoration: none;
}
.paper {
  print-color-adjust: exact;
  background: var(--kettle-sheet);
  color: var(--kettle-ink);
  max-width: 820px;
  margin: 0 auto;
  padding: 26px 30px;
  border-radius: 6px;
  box-shadow: 0 2px 14px rgb(0 0 0 / 18%);
  display: grid;
  grid-template-columns: repeat(10, minmax(0, 1fr));
  gap: 8px 24px;
  font-size: 0.95rem;
  line-height: 1.35;
}
header,
.under,
.mind {
  grid-column: span 10;
}
.clock {
  grid-column: span 6;
}
.lay {
  grid-column: span 4;
}
.under.half {
  grid-column: span 5;
}
.mind ul {
  columns: 2;
  column-gap: 34px;
}
.mind li {
  break-inside: avoid;
}
h1 {
  font-size: 1.7rem;
  margin: 0;
}
h2 {
  font-size: 1.08rem;
  margin: 10px 0 4px;
  border-bottom: 2px solid var(--kettle-ink);
}
h3 {
  font: 700 0.95rem var(--kettle-text);
  margin: 8px 0 2px;
}
.when {
  margin: 4px 0 0;
  font-weight: 700;
}
ul {
  margin: 0;
  padding-left: 1.1em;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 3px 0;
  border-bottom: 1px solid var(--kettle-line);
}
th {
  width: 3.6em;
  font-weight: 700;
}
.long {
  width: 5.4em;
  text-align: right;
  white-space: nowrap;
}
.machine td {
  color: var(--kettle-ink-soft);
}
.gate td,
.fire td {
  font-weight: 700;
}
.marks {
  margin: 4px 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
}
.close,
.closer {
  font-size: 0.84rem;
  line-height: 1.22;
}
:is(.close, .closer) :is(th, td) {
  padding: 1px 0;
}
@media (max-width: 640px) {
  .paper {
    display: block;
    padding: 18px;
  }
  .mind ul {
    columns: 1;
  }
}
@media print {
  @page {
    margin: 10mm;
  }
  .fridge {
    padding: 0;
    margin: 0;
    max-width: none;
  }
  .paper {
    box-shadow: none;
    background: none;
    padding: 0;
    max-width: none;
    font-size: 9.6pt;
    gap: 2px 20px;
    display: grid;
  }
  .paper.close {
    font-size: 8.6pt;
  }
  .paper.closer {
    font-size: 7.4pt;
  }
  section {
    break-inside: avoid;
  }
}
</style>
