<script setup lang="ts">
import { computed } from 'vue'
import type { Analysis } from '@/api/client'
import { percent, yieldWords } from './jar'
import SauceJar from './SauceJar.vue'

/** What the lines come to: the jar, and beside it the few figures a cook asks for. */
const props = defineProps<{ analysis: Analysis }>()
const salt = computed(() => props.analysis.salt)
const top = computed(() =>
  props.analysis.salt_from
    .filter((s) => s.share > 0.05)
    .slice(0, 2)
    .map((s) => s.name)
    .join(', '),
)
</script>

<template>
  <section class="facts" aria-label="What it comes to">
    <p class="yield figure">
      <b>{{ yieldWords(analysis) }}</b>, {{ analysis.thickness }}.
    </p>
    <p v-if="analysis.gap" class="gap" role="status">
      {{ analysis.gap }}: the figures leave {{ analysis.gap.startsWith('1 ') ? 'it' : 'them' }} out.
    </p>
    <SauceJar :analysis="analysis" />
    <dl class="figure">
      <dt>Sugars</dt>
      <dd>
        <b>{{ percent(analysis.sugars) }}</b>
        <span v-if="analysis.sugars_from.length" class="quiet"
          >most from {{ analysis.sugars_from[0]!.name }}</span
        >
      </dd>
      <dt>Salt</dt>
      <dd>
        <b>{{ percent(analysis.parts.salt ?? 0) }}</b>
        <span v-if="top" class="quiet">from {{ top }}</span>
      </dd>
      <template v-if="salt"
        ><dt>Salt of the meat</dt>
        <dd>
          <b>{{ percent(salt.likely_share) }}</b>
          <span class="quiet"
            >{{ salt.verdict }}, {{ percent(salt.usual_low) }} to {{ percent(salt.usual_high)
            }}<template v-if="salt.by.length > 1"
              >;
              {{
                salt.by.map((b) => `${percent(b.likely_share)} from ${b.name}`).join(', ')
              }}</template
            ></span
          >
        </dd></template
      >
      <template v-if="analysis.simmered"
        ><dt>Simmered</dt>
        <dd>
          <b>{{ Math.round(analysis.simmered.gone_g) }} g of steam</b>
          <span class="quiet"
            >{{ analysis.simmered.heat_up_min.toFixed(0) }} min to the boil first</span
          >
          <em v-if="analysis.simmered.catches">It would catch before then: stop sooner.</em>
        </dd></template
      >
      <dt>Allergens</dt>
      <dd>
        <template v-if="analysis.allergens.length"
          ><span v-for="(a, i) in analysis.allergens" :key="a.name"
            ><b>{{ a.name }}</b> <span class="quiet">({{ a.brought_by.join(', ') }})</span
            >{{ i + 1 < analysis.allergens.length ? ', ' : '' }}</span
          ></template
        ><template v-else>none of the usual twelve that I know of; read the labels</template>
      </dd>
    </dl>
  </section>
</template>

<style scoped>
dd > b:first-child {
  margin-right: 8px;
}
.facts {
  display: grid;
  gap: 8px;
}
.yield {
  margin: 0;
  font-size: 1.2rem;
}
.yield b {
  font: 700 1.45rem var(--kettle-display);
}
.gap {
  margin: 0;
  border-left: 6px solid var(--kettle-careful);
  padding-left: 12px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 5px 18px;
  margin: 0;
}
dt {
  color: var(--kettle-ink-soft);
}
dd {
  margin: 0;
}
em {
  color: var(--kettle-careful);
}
</style>
