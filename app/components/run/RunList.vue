<script setup lang="ts">
/** Runs, newest first, a page at a time; struck ones stay readable. */
import type { RunLine } from '#shared/answers/runs'
import { ref, watch } from 'vue'
import { runsConcern } from '#shared/news'
import { read } from '~/lib/api'
import { when } from '#shared/time'
import { grams } from '#core/words'
import ListLinks from '~/components/ui/ListLinks.vue'
import { useShop } from '~/state/shop'

const props = defineProps<{ show: number | null }>()
defineEmits<{ strike: [run: RunLine] }>()
const shop = useShop()
const runs = ref<RunLine[]>([])
const next = ref<string | null>(null)

async function load(more = false): Promise<void> {
  try {
    const page = await read('/api/runs', {}, { limit: '20', ...(more && next.value ? { after: next.value } : {}) })
    runs.value = more ? [...runs.value, ...page.runs] : page.runs
    next.value = page.next
  } catch {
    /* the frame says that the server is away; what was read stays */
  }
}
watch(
  () => shop.revision,
  () => void load(),
  { immediate: true },
)
watch(
  () => shop.news,
  items => {
    if (runsConcern(items)) void load()
  },
)
const stopped = (r: RunLine) => {
  if (r.stoppedKind === null) return ''
  if (r.stoppedKind === 'percent') return ` at ${r.stoppedValue} %`
  return r.stoppedKind === 'height' ? ` at ${r.stoppedValue} mm` : ` after ${r.stoppedValue} g`
}
</script>

<template>
  <section aria-labelledby="runs-title">
    <header class="mb-1 flex flex-wrap items-baseline gap-x-4">
      <h2 id="runs-title">Logged runs</h2>
      <ListLinks list="runs" />
    </header>
    <p v-if="runs.length === 0" class="text-ink2">None yet.</p>
    <div v-else class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Logged runs, pans sideways">
      <table class="record min-w-[680px]">
        <thead>
          <tr>
            <th>ended</th>
            <th>job</th>
            <th>printer</th>
            <th>nozzle</th>
            <th class="num">extruded → fibre</th>
            <th>by</th>
            <th><span class="sr-only">strike out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="r in runs"
            :key="r.id"
            :class="[r.struck ? 'text-ink2' : '', r.id === props.show ? 'bg-white outline-2 outline-ink' : '']"
          >
            <td class="whitespace-nowrap" :class="r.struck ? 'line-through' : ''">{{ when(r.endedAt, shop.zone) }}</td>
            <td>
              <span :class="r.struck ? 'line-through' : ''"
                ><b class="font-[650]">{{ r.name }}</b> {{ r.tools[0]?.material
                }}{{ r.surface ? ` on ${r.surface}` : '' }}</span
              ><span v-if="r.outcome === 'failed'" class="block font-semibold text-stop"
                >failed{{ stopped(r) }}{{ r.symptoms.length ? `: ${r.symptoms.join(', ')}` : '' }}</span
              ><NuxtLink
                v-if="r.outcome === 'failed' && !r.struck"
                :to="`/inspect/wrong?run=${r.id}`"
                class="act text-[13px]"
                >What is wrong?<span class="sr-only">
                  with {{ r.name }} of {{ when(r.endedAt, shop.zone) }}</span
                ></NuxtLink
              ><span v-if="r.struck" class="block text-xs"
                >Struck out by {{ r.struck.person }}: {{ r.struck.reason }}</span
              >
            </td>
            <td>{{ r.printer }}</td>
            <td>
              <NuxtLink
                v-for="t in r.tools"
                :key="t.tool"
                :to="`/inspect/${t.nozzle}`"
                class="target inline-flex items-center pr-2 whitespace-nowrap underline underline-offset-2"
                >{{ t.nozzle }}</NuxtLink
              >
            </td>
            <td class="num" :class="r.struck ? 'line-through' : ''">
              <span v-for="t in r.tools" :key="t.tool" class="block"
                >{{ grams(t.extrudedG) }} → {{ grams(t.fibreG) }}</span
              >
            </td>
            <td class="whitespace-nowrap">{{ r.person }}</td>
            <td class="num">
              <button v-if="!r.struck" type="button" class="button plain text-[13px]" @click="$emit('strike', r)">
                Strike out<span class="sr-only"> {{ r.name }} of {{ when(r.endedAt, shop.zone) }}</span>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="next" type="button" class="button plain" @click="load(true)">Show older runs</button>
  </section>
</template>
