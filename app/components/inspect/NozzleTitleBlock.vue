<script setup lang="ts">
/** What this nozzle is, what its numbers rest on, and when it was last measured. */
import type { NozzlePage } from '#shared/answers/nozzles'
import { computed } from 'vue'
import { startOf, type NozzleForecast } from '#core/wear'
import { gaugeFoundWords } from '#shared/gauge-words'
import { shareWords } from '#shared/share'
import { day } from '#shared/time'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { droppedWords, nozzleFlowWords } from '~/words/flow'

const props = defineProps<{ page: NozzlePage; forecast: NozzleForecast; other: string; zone: string }>()
defineEmits<{ law: [law: 'sliding' | 'linear']; retire: []; remove: []; fit: []; edit: [] }>()

/** The bore as it came: what was read then, or what it is taken to have been. */
const receipt = computed(() => {
  const g = props.page.gaugePoints.find(
    x => x.kind === 'receipt' && (x.goMm !== null || x.noGoMm !== null || x.valueMm !== null),
  )
  if (g) return gaugeFoundWords({ ...g, tipMm: null, shape: [] })
  const start = startOf(props.page.input.bore)[0]!
  return `not gauged; taken as ${Number(start.meanMm.toFixed(3))} ± ${Number(start.uMm.toFixed(3))} mm`
})
const rules = computed(() => {
  const t = props.page.type
  return [
    t.boreGrowthLimit === null ? '' : `bore at its narrowest + ${shareWords('boreGrowthLimit', t.boreGrowthLimit)}`,
    t.tipLossLimitMm === null ? '' : `tip − ${t.tipLossLimitMm} mm`,
    t.massLimitKg === null ? '' : `${t.massLimitKg} kg`,
  ]
    .filter(Boolean)
    .join(', or ')
})
const rate = (v: number) => Number(v.toPrecision(2))
const laws = computed(() => {
  const l = props.page.laws
  if (l.preferred === null)
    return l.reason === 'too few gauges'
      ? 'under five gauges: cannot tell'
      : `the gauges cannot tell (Bayes factor ${l.bayesFactor!.toFixed(1)})`
  return (
    `${l.preferred === 'sliding' ? 'sliding wear' : 'straight line'}, Bayes factor ` +
    `${l.bayesFactor! > 100 ? 'over 100' : l.bayesFactor!.toPrecision(2)}`
  )
})
const last = computed(() => [...props.page.gaugePoints].reverse().find(g => g.kind === 'service'))
</script>

<template>
  <div>
    <dl class="title-block grid-cols-2">
      <div class="!border-t-0">
        <dt>Nozzle</dt>
        <dd class="font-bold">{{ page.nozzle.tag }}</dd>
      </div>
      <div class="!border-t-0 border-l">
        <dt>Material</dt>
        <dd>{{ page.type.material }}</dd>
      </div>
      <div>
        <dt>Bore at receipt{{ page.nozzle.wasUsed ? ' (came used)' : '' }}</dt>
        <dd>{{ receipt }}</dd>
      </div>
      <div class="border-l">
        <dt>Rate at a 0.4 bore</dt>
        <dd>
          {{ rate(forecast.kappa.median) }} mm per kg<span class="block text-xs text-ink2"
            >80 % {{ rate(forecast.kappa.low80) }} to {{ rate(forecast.kappa.high80) }}</span
          >
        </dd>
      </div>
      <div>
        <dt>Law in use</dt>
        <dd>
          {{ page.nozzle.law === 'sliding' ? 'sliding wear, d³' : 'straight line'
          }}<span class="block text-xs text-ink2">{{ other }}</span>
        </dd>
      </div>
      <div class="border-l">
        <dt>The data prefer</dt>
        <dd>{{ laws }}</dd>
      </div>
      <div>
        <dt>Retire rule</dt>
        <dd>
          {{ rules }}<span class="block text-xs text-ink2">{{ page.type.basis }}</span>
        </dd>
      </div>
      <div class="border-l">
        <dt>Weighted by</dt>
        <dd>{{ page.sisters < 3 ? 'start values (under three sisters)' : `${page.sisters} sister nozzles` }}</dd>
      </div>
      <div>
        <dt>Through it so far</dt>
        <dd>{{ (page.extrudedG / 1000).toFixed(2) }} kg, of it {{ (page.fibreG / 1000).toFixed(2) }} kg fibre</dd>
      </div>
      <div class="border-l">
        <dt>Last gauged</dt>
        <dd>{{ last ? day(last.at, zone) : 'not since receipt' }}</dd>
      </div>
      <div class="col-span-2">
        <dt>Flow it sustains</dt>
        <dd v-if="page.flow.length === 0">not benched</dd>
        <dd v-for="f in page.flow" :key="f.benchId">
          <NuxtLink :to="`/inspect/bench?bench=${f.benchId}`" class="act">{{ nozzleFlowWords(f) }}</NuxtLink>
          {{ day(f.at, zone)
          }}<span v-if="f.dropped" class="flex items-start gap-1 text-look"
            ><VerdictMark verdict="look" :size="14" class="mt-[3px]" />{{ droppedWords(f.dropped) }}</span
          >
        </dd>
      </div>
    </dl>
    <div class="no-print mt-2 flex flex-wrap gap-2">
      <NuxtLink v-if="page.place" :to="`/change/swap?head=${page.place.headId}`" class="button">Swap it</NuxtLink>
      <NuxtLink v-if="page.place" :to="`/change/clog?head=${page.place.headId}`" class="button">Clear a clog</NuxtLink>
      <NuxtLink v-if="page.place" :to="`/inspect/bench?head=${page.place.headId}`" class="button"
        >Bench its flow</NuxtLink
      >
      <button type="button" class="button" @click="$emit('law', page.nozzle.law === 'sliding' ? 'linear' : 'sliding')">
        Use {{ page.nozzle.law === 'sliding' ? 'the straight line' : 'sliding wear' }}
      </button>
      <button v-if="page.retired === null && !page.place" type="button" class="button" @click="$emit('fit')">
        Fit it
      </button>
      <button v-if="page.place" type="button" class="button" @click="$emit('remove')">Take it off</button>
      <button type="button" class="button" @click="$emit('edit')">Edit it</button>
      <button v-if="page.retired === null" type="button" class="button danger" @click="$emit('retire')">
        Retire it
      </button>
    </div>
  </div>
</template>
