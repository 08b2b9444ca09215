<script setup lang="ts">
/** What the printer reports now, and with a stand-in its own panel. A lost printer shows no number. */
import { computed, reactive, ref } from 'vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { ask, ProblemError } from '~/lib/api'
import { checks } from '~/lib/checks'
import { when } from '#shared/time'
import { temper } from '~/words/numbers'
import { useLive } from '~/state/live'
import { useShop } from '~/state/shop'

const props = defineProps<{ printer: string; now: number }>()
const live = useLive()
const shop = useShop()
const report = computed(() => live.of(props.printer, props.now))
const lost = computed(() => live.lost(props.printer))
const linked = computed(() => live.links.printers.includes(props.printer))
const rows = computed(() => {
  const r = report.value
  if (!r) return []
  return [
    ...r.heads.map((h, i) => ({ name: r.heads.length > 1 ? `nozzle ${i + 1}` : 'nozzle', ...h, top: 460 })),
    ...(r.bed ? [{ name: 'bed', ...r.bed, top: 180 }] : []),
    ...(r.chamber ? [{ name: 'chamber', ...r.chamber, top: 120 }] : []),
  ]
})
/** What the stand-in's panel sets: each head by its number. */
const heaters = computed(() => {
  const heads = report.value?.heads ?? []
  const nozzles = heads.map((_, head) => ({
    name: heads.length > 1 ? `nozzle ${head + 1}` : 'nozzle',
    heater: 'nozzle' as const,
    head,
  }))
  return [
    ...nozzles,
    { name: 'bed', heater: 'bed' as const, head: 0 },
    { name: 'chamber', heater: 'chamber' as const, head: 0 },
  ]
})
const set = reactive<Record<string, number | null>>({})
const failure = ref('')
const done = ref('')
async function send(body: Record<string, unknown>, says: string): Promise<void> {
  failure.value = done.value = ''
  const whole = { ...body, printer: props.printer }
  const [wrong] = (await checks()).ask('/api/stand-in', whole)
  if (wrong) {
    failure.value = wrong.message
    return
  }
  try {
    await ask('/api/stand-in', whole)
    done.value = says
  } catch (e) {
    failure.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer'
  }
}
</script>

<template>
  <section class="sheet p-3" :aria-label="`${printer} now`">
    <h2 class="mb-1">{{ printer }} now</h2>
    <p v-if="!linked" class="text-ink2">
      Not connected. Read it at the printer; the README says how a printer is connected.
    </p>
    <p v-else-if="lost" class="flex items-center gap-2 font-semibold text-look" role="status">
      <VerdictMark verdict="look" :size="16" />Connection lost since {{ when(lost, shop.zone) }}. No readings until it
      is back.
    </p>
    <p v-else-if="!report" class="text-ink2" role="status">Waiting for its first report.</p>
    <dl v-else class="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-3 gap-y-1">
      <template v-for="r in rows" :key="r.name">
        <dt class="font-semibold">{{ r.name }}</dt>
        <dd class="m-0 relative h-[14px] border border-ink bg-white" aria-hidden="true">
          <span
            class="absolute inset-y-0 left-0"
            :style="{ width: `${Math.max(0, Math.min(100, (r.nowC / r.top) * 100))}%`, background: temper(r.nowC) }"
          /><span
            v-if="r.setC"
            class="absolute inset-y-[-3px] w-[3px] bg-ink"
            :style="{ left: `${Math.min(100, (r.setC / r.top) * 100)}%` }"
          />
        </dd>
        <dd class="m-0 flex justify-end gap-1">
          <b>{{ r.nowC.toFixed(1) }} °C</b>
          <span class="text-ink2">{{ r.setC ? `of ${r.setC.toFixed(0)}` : 'off' }}</span>
        </dd>
      </template>
    </dl>
    <details v-if="live.links.standIns && linked" class="mt-2 border-t border-rule">
      <summary class="act">The stand-in's panel</summary>
      <p class="text-sm text-ink2">
        This printer is a stand-in that ships with the demo. Its heaters and door are set here as a hand would at a real
        one; real printers are only read.
      </p>
      <div class="mt-2 grid gap-2 sm:grid-cols-3">
        <form
          v-for="{ name, heater, head } in heaters"
          :key="name"
          class="flex items-end gap-2"
          @submit.prevent="send({ what: 'set', heater, head, celsius: set[name] }, `${name} set to ${set[name]} °C`)"
        >
          <FieldNumber
            :id="`panel-${name.replace(' ', '-')}`"
            :model-value="set[name] ?? null"
            class="flex-1"
            :label="name"
            unit="°C"
            @update:model-value="c => (set[name] = c)"
          /><button type="submit" class="button">
            Set<span class="sr-only"> {{ name }}</span>
          </button>
        </form>
      </div>
      <div class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="button" @click="send({ what: 'door', open: true }, 'door open')">
          Open the door</button
        ><button type="button" class="button" @click="send({ what: 'door', open: false }, 'door shut')">
          Shut the door
        </button>
      </div>
      <p v-if="failure" class="mt-1 font-semibold text-stop" role="alert">{{ failure }}</p>
      <p v-else-if="done" class="mt-1" role="status">{{ done }}</p>
    </details>
  </section>
</template>
