<script setup lang="ts">
/** The flow bench: planned, its job file saved, weighed blob by blob, and what it tells of nozzle and head. */
import { computed, ref, watch } from 'vue'
import { counted, grams } from '#core/words'
import type { BenchPage } from '#shared/answers/flow'
import { day, when } from '#shared/time'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import BenchPlot from '~/components/inspect/BenchPlot.vue'
import BenchSheet from '~/components/inspect/BenchSheet.vue'
import BenchTold from '~/components/inspect/BenchTold.vue'
import BenchTurn from '~/components/inspect/BenchTurn.vue'
import FilamentMeasureSheet from '~/components/inspect/FilamentMeasureSheet.vue'
import InspectTabs from '~/components/inspect/InspectTabs.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useAnswer } from '~/composables/answer'
import { useAskedFor } from '~/composables/asked-for'
import { useEntryForm } from '~/composables/entry-form'
import { useTurn } from '~/composables/turn'
import { saveFile } from '~/lib/files'
import { BLOB_TURN, fileOf, openBlobs } from '~/lib/flow'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { benchSentence, shareWords, standWords, weighedWords } from '~/words/flow'

useHead({ title: 'Flow bench · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const ui = useUi()
const { data: benches, failure } = useAnswer('/api/benches')
const asked = computed(() => (route.query.bench ? Number(route.query.bench) : null))
/** The one that was asked for, or that is being weighed, or the latest that stands. */
const id = computed(() => {
  const all = benches.value ?? []
  const open = all.find(b => b.struck === null && b.ended === null)
  return asked.value ?? (open ?? all.find(b => b.struck === null) ?? all[0])?.id ?? null
})
const { data: read, failure: pageFailure } = useAnswer('/api/benches/{id}', {
  params: () => (id.value === null ? null : { id: id.value }),
})
const bench = computed(() => (read.value?.id === id.value ? read.value : null))
const told = computed(() => (bench.value?.result ? { ...bench.value, result: bench.value.result } : null))
const choose = (to: number) => void router.push({ query: { bench: String(to) } })

const planning = ref(false)
const planFor = ref({ headId: null as number | null, spoolId: null as number | null })
const { forget } = useAskedFor(['head', 'spool'], ({ head, spool }) => {
  planFor.value = { headId: head === null ? null : Number(head), spoolId: spool === null ? null : Number(spool) }
  planning.value = true
})
function planned(begun: number | null): void {
  planning.value = false
  if (begun !== null) choose(begun)
  else forget()
}
const canWeigh = (b: BenchPage) => b.struck === null && b.ended === null
const isOpen = computed(() => bench.value !== null && canWeigh(bench.value))
const line = useTurn(BLOB_TURN, bench, b => (canWeigh(b) ? openBlobs(b) : null))
const weighedG = computed(() => {
  const b = bench.value
  if (!b) return 0
  return [...b.lines.flatMap(l => l.blob ?? []), ...b.struckBlobs].reduce((t, x) => t + x.massG, 0)
})
function saveJob(): void {
  const { name, text } = fileOf(bench.value!)
  saveFile(name, 'text/x-gcode', text)
  ui.say(`${name} is saved: copy it to the printer. It pauses after each blob.`)
}
const ending = useEntryForm('/api/endings')
async function finish(confirmed: string[] = []): Promise<void> {
  const b = bench.value!
  const outcome = line.value === null ? 'done' : 'stopped early'
  const body = { target: 'flow bench', targetId: b.id, outcome, occurredAt: new Date().toISOString() }
  const done = await ending.send(body, `End the flow bench of ${b.nozzle}`, confirmed)
  if (done !== null && done !== 'queued')
    ui.say(`The bench has ended: ${grams(weighedG.value)} are logged as a run through ${b.nozzle}, off ${b.spool}.`)
}
watch(id, () => ending.reset())
const striking = ref<{ target: 'flow bench' | 'blob' | 'filament measure'; id: number; says: string } | null>(null)
const measuring = ref<{ benchId: number; spool: string; kind: 'callipers' | 'mark' } | null>(null)
const measure = (kind: 'callipers' | 'mark') => {
  measuring.value = { benchId: bench.value!.id, spool: bench.value!.spool, kind }
}
const shareOf = (massG: number) => shareWords(massG / bench.value!.nominalG)
function print(): void {
  window.print()
}
</script>

<template>
  <div>
    <InspectTabs :failure="failure ?? pageFailure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <div
      v-else
      class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[minmax(0,1fr)_300px] print:block"
    >
      <div v-if="bench" class="grid grid-cols-[minmax(0,1fr)] gap-4">
        <header class="flex flex-wrap items-baseline gap-x-3">
          <h2>
            <NuxtLink :to="`/inspect/${bench.nozzle}`" class="act">{{ bench.nozzle }}</NuxtLink> on {{ bench.place }}
          </h2>
          <span class="text-sm text-ink2"
            >{{ bench.material }}, {{ bench.spool }}; {{ counted(bench.lines.length, 'blob') }} of
            {{ bench.lengthMm / 1000 }} m; begun {{ day(bench.at, shop.zone) }} by {{ bench.person
            }}{{ bench.note ? `; ${bench.note}` : '' }}</span
          >
          <span class="no-print ml-auto flex flex-wrap gap-2">
            <button type="button" class="button plain" @click="print">Print</button>
            <button
              v-if="!bench.struck"
              type="button"
              class="button plain"
              @click="striking = { target: 'flow bench', id: bench.id, says: `The bench of ${bench.nozzle}` }"
            >
              Strike out<span class="sr-only"> the bench of {{ bench.nozzle }}</span>
            </button>
          </span>
        </header>
        <p class="text-[17px] leading-snug font-[680]" :class="bench.struck ? 'text-ink2' : ''" role="status">
          {{ benchSentence(bench) }}
        </p>
        <div v-if="isOpen" class="no-print flex flex-wrap items-center gap-3">
          <button type="button" class="button" :class="bench.weighed === 0 ? 'first' : ''" @click="saveJob">
            Save the job file
          </button>
          <button
            v-if="bench.weighed > 0"
            id="bench-end"
            type="button"
            class="button"
            :class="line === null ? 'first' : ''"
            :disabled="ending.busy.value"
            @click="finish()"
          >
            {{ line === null ? 'Log it as a run' : 'End it early and log it as a run' }}
          </button>
          <span v-if="bench.weighed > 0" class="text-sm text-ink2"
            >{{ grams(weighedG) }} went off {{ bench.spool }} and through {{ bench.nozzle }}</span
          >
        </div>
        <p v-for="e in Object.values(ending.errors.value)" :key="e" class="font-semibold text-stop" role="alert">
          {{ e }}
        </p>
        <QuestionBox
          :problem="ending.problem.value"
          :busy="ending.busy.value"
          @confirm="finish"
          @local="ending.reset()"
        />
        <BenchTurn v-if="line !== null" :key="bench.id" :bench="bench" :line="line" />
        <template v-if="told">
          <BenchPlot :bench="told" />
          <BenchTold :bench="told" @measure="measure" />
        </template>
        <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Blobs, pan sideways">
          <table class="record sheet min-w-[560px]">
            <caption class="sr-only">
              The blobs of
              {{
                bench.nozzle
              }}
              in their order
            </caption>
            <thead>
              <tr>
                <th scope="col" class="num">blob</th>
                <th scope="col" class="num">°C</th>
                <th scope="col" class="num">mm³/s</th>
                <th scope="col" class="num">net, ± 2 u</th>
                <th scope="col" class="num">delivered</th>
                <th scope="col"><span class="sr-only">strike out</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(l, i) in bench.lines" :key="i" :class="i === line ? 'bg-white font-semibold' : ''">
                <td class="num">{{ i + 1 }}</td>
                <td class="num">{{ l.temperatureC }}</td>
                <td class="num">{{ l.flowMm3S }}</td>
                <td class="num">
                  <template v-if="l.blob">{{ weighedWords(l.blob) }}</template><template v-else>{{
                    i === line ? 'now' : ''
                  }}</template>
                </td>
                <td class="num">
                  {{ l.blob ? shareOf(l.blob.massG) : '' }}
                  <span
                    v-for="k in bench.struckBlobs.filter(s => s.line === i)"
                    :key="k.id"
                    class="block text-sm text-ink2"
                    ><s>{{ weighedWords(k) }}</s> struck out by {{ k.struck!.person }}: {{ k.struck!.reason }}</span
                  >
                </td>
                <td>
                  <button
                    v-if="l.blob && !bench.struck"
                    type="button"
                    class="button plain no-print"
                    @click="striking = { target: 'blob', id: l.blob.id, says: `Blob ${i + 1} of ${bench.nozzle}` }"
                  >
                    Strike out<span class="sr-only"> blob {{ i + 1 }}</span>
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="bench.run" class="text-sm text-ink2">
          Logged as a run: {{ grams(bench.run.grams) }} with what was primed{{
            bench.run.struck ? '; that run is struck out' : ''
          }}{{ bench.struck ? '. The run stands: it went through the nozzle' : '' }}.
        </p>
        <section aria-labelledby="measures-title" class="grid gap-1 text-sm">
          <h3 id="measures-title" class="font-[650]">Measured of the filament</h3>
          <ul>
            <li v-for="m in bench.measures" :key="m.id" class="flex flex-wrap items-center gap-x-3">
              <span :class="m.struck ? 'line-through' : ''">{{
                m.callipersMm
                  ? `callipers ${m.callipersMm.join(', ')} mm`
                  : `told ${m.mark!.toldMm} mm, went in ${m.mark!.fedMm} mm`
              }}</span><span class="text-ink2"
                >{{ when(m.at, shop.zone) }}, {{ m.person
                }}{{ m.struck ? `; struck out by ${m.struck.person}: ${m.struck.reason}` : '' }}</span
              ><button
                v-if="!m.struck"
                type="button"
                class="button plain no-print"
                @click="striking = { target: 'filament measure', id: m.id, says: 'What was measured' }"
              >
                Strike out<span class="sr-only"> what was measured</span>
              </button>
            </li>
          </ul>
          <p v-if="bench.measures.length === 0" class="text-ink2">
            Nothing: {{ bench.diameterMm }} mm and {{ bench.densityGCm3 }} g/cm³ by the record of {{ bench.spool }}.
          </p>
          <p v-if="!bench.struck" class="no-print flex gap-2">
            <button type="button" class="button plain" @click="measure('callipers')">Enter the callipers</button>
            <button type="button" class="button plain" @click="measure('mark')">Enter a length mark</button>
          </p>
        </section>
      </div>
      <section class="no-print grid gap-3" :class="bench ? '' : 'max-w-[560px]'" aria-label="Flow benches">
        <p v-if="benches?.length === 0">
          No flow bench yet. How much does a nozzle deliver when it is pushed? Blobs of a metre, weighed one by one,
          tell what it sustains, and whether nozzle, heat or grip holds it back.
        </p>
        <div>
          <button
            type="button"
            class="button"
            :class="isOpen ? '' : 'first'"
            :disabled="!benches || !shop.data"
            @click="planning = true"
          >
            Plan a flow bench
          </button>
        </div>
        <ul class="grid gap-2">
          <li v-for="b in benches ?? []" :key="b.id">
            <button
              type="button"
              class="sheet w-full p-3 text-left"
              :class="b.id === id ? 'border-2 border-ink' : ''"
              :aria-current="b.id === id ? 'true' : undefined"
              @click="choose(b.id)"
            >
              <b :class="b.struck ? 'line-through' : ''">{{ b.nozzle }} on {{ b.place }}</b
              ><span class="block text-sm text-ink2"
                >{{ b.material }}, {{ day(b.at, shop.zone) }}: {{ standWords(b) }}</span
              >
            </button>
          </li>
        </ul>
      </section>
    </div>
    <BenchSheet :open="planning" :head-id="planFor.headId" :spool-id="planFor.spoolId" @close="planned" />
    <FilamentMeasureSheet :on="measuring" @close="measuring = null" />
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>
