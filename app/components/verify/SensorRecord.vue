<script setup lang="ts">
/** One sensor: its errors drawn, what they mean for what is set, and its checks. */
import { computed } from 'vue'
import { heatAt, heatFor, heatSays } from '#core/limits'
import { sensorState } from '#core/thermometry'
import type { SensorLine } from '#shared/answers/sensors'
import { countingChecks, resultOf } from '#shared/sensor-state'
import { when } from '#shared/time'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import ErrorCurve from '~/components/verify/ErrorCurve.vue'
import { useShop } from '~/state/shop'
import { allowedWords, correctionWith, outcomeWords, rangeOf, sensorName, VERDICT_OF } from '~/words/sensor'

const props = defineProps<{ sensor: SensorLine; canCheck: boolean }>()
defineEmits<{ check: []; strike: [id: number, says: string] }>()
const shop = useShop()
const counting = computed(() => countingChecks(props.sensor))
const state = computed(() => sensorState(counting.value))
const correction = computed(() => correctionWith(counting.value, null, shop.zone))
const before = computed(() =>
  counting.value
    .filter(c => c.result.own && c.id !== state.value.check?.id)
    .slice(0, 3)
    .map(c => c.result),
)
/** At the hottest point that was taken: what is set for a round temperature. */
const advice = computed(() => {
  const hottest = state.value.check?.result.points.at(-1)
  if (!hottest || correction.value === null) return ''
  return heatSays(heatFor(correction.value, Math.round(hottest.shownC / 10) * 10))
})
const drift = computed(() => {
  const d = state.value.drift
  if (!d) return ''
  const way = d.per100H > 0 ? 'lower' : 'higher'
  const sure = Math.abs(d.per100H) > d.u90
  return sure
    ? `It drifts: reads ${Math.abs(d.per100H).toFixed(1)} ± ${d.u90.toFixed(1)} °C ${way} each 100 h at heat.`
    : `No drift that both checks together can see (± ${d.u90.toFixed(1)} °C each 100 h at heat).`
})
const rows = computed(() => props.sensor.checks.map(c => ({ c, result: resultOf(c) })))
/** The tip is cooler than the block: a gradient, and no error of the sensor. */
const gradient = computed(() => {
  const tip = rows.value.find(r => r.c.struck === null && r.c.placement === 'at the tip' && r.result)
  const p = tip?.result?.points.at(-1)
  if (!p || !state.value.check) return ''
  const blockC = heatAt(correction.value, p.shownC).trueC
  if (blockC <= p.trueC) return ''
  const under = `${(blockC - p.trueC).toFixed(0)} °C under the block`
  return `At ${p.shownC.toFixed(0)} °C shown the tip was ${under}, by a probe that reads low there.`
})
</script>

<template>
  <section class="grid grid-cols-[minmax(0,1fr)] gap-3" :aria-label="sensorName(sensor)">
    <header class="flex flex-wrap items-center gap-x-3">
      <h2>{{ sensorName(sensor) }}</h2>
      <span class="text-sm text-ink2">{{ sensor.sensor ?? 'no such sensor is described with the parts' }}</span>
      <button v-if="canCheck" type="button" class="button first no-print ml-auto" @click="$emit('check')">
        Check it
      </button>
    </header>
    <template v-if="state.check">
      <p class="flex items-start gap-2 text-[15px] font-[650]">
        <VerdictMark :verdict="VERDICT_OF[state.check.result.verdict].verdict" class="mt-[2px]" />{{
          outcomeWords(state.check.result)
        }}
      </p>
      <ErrorCurve
        :result="state.check.result"
        :before="before"
        :correction="correction"
        :allowed="state.check.allowed"
        :label="`Errors of ${sensorName(sensor)}: ${outcomeWords(state.check.result)}`"
      />
      <p class="text-sm">
        <template v-if="advice"
          ><b>{{ advice }}</b
          >&nbsp;</template
        >{{ drift }} {{ gradient }}
        <template v-if="state.nextInH !== null">
          {{
            state.nextInH > 0 ? `Next check in ${Math.round(state.nextInH)} h at heat.` : 'Check it again now.'
          }}</template
        >
      </p>
    </template>
    <p v-else class="text-sm">
      Nobody has checked this sensor{{ sensor.checks.length > 0 ? ' as it sits there now' : '' }}. Its part of the guard
      band, {{ sensor.guardPartC }} °C, stands for what it may be off by.
    </p>
    <div v-if="rows.length > 0" class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Its checks">
      <table class="record sheet min-w-[520px]">
        <caption class="sr-only">
          Checks of
          {{
            sensorName(sensor)
          }}
        </caption>
        <thead>
          <tr>
            <th scope="col">checked</th>
            <th scope="col">reference</th>
            <th scope="col">shown → in truth, °C</th>
            <th scope="col">outcome</th>
            <th scope="col"><span class="sr-only">strike</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ c, result } in rows" :key="c.id" :class="c.struck ? 'struck' : ''">
            <td>
              {{ when(c.at, shop.zone) }}<span class="block text-xs text-ink2">{{ c.person }}</span>
            </td>
            <td>
              {{ c.reference
              }}<span class="block text-xs text-ink2">{{ c.placement }}; {{ allowedWords(c.allowed) }}</span>
            </td>
            <td>
              <template v-if="result"
                ><span v-for="p in result.points" :key="p.shownC" class="block whitespace-nowrap"
                  >{{ p.shownC.toFixed(0) }} → {{ p.trueC.toFixed(1) }}
                  <span class="text-xs text-ink2">{{ rangeOf(p) }}</span></span
                ></template
              ><span v-else class="text-look">its numbers cannot be read any more</span>
            </td>
            <td>
              <span v-if="c.struck">struck out: {{ c.struck.reason }}</span
              ><template v-else-if="result"
                >{{ VERDICT_OF[result.verdict].text
                }}<span v-if="!c.ofThisSensor" class="block text-xs text-ink2">of another sensor</span></template
              ><span v-if="c.note" class="block text-xs text-ink2">{{ c.note }}</span>
            </td>
            <td class="no-print">
              <button
                v-if="!c.struck"
                type="button"
                class="button plain"
                @click="$emit('strike', c.id, `Check of ${sensorName(sensor)}`)"
              >
                Strike out
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
