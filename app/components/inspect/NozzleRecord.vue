<script setup lang="ts">
/** Everything that happened to a nozzle, newest first; struck entries stay readable. */
import type { RecordLine } from '#shared/answers/nozzles'
import { computed, ref } from 'vue'
import { when, withTimes } from '#shared/time'

const props = defineProps<{
  record: RecordLine[]
  zone: string
  /** Gauges that count as misread. */ misread: number[]
}>()
defineEmits<{ strike: [line: RecordLine] }>()
const all = ref(false)
const shown = computed(() => (all.value ? props.record : props.record.slice(0, 12)))
</script>

<template>
  <div class="min-w-0">
    <h2 class="sr-only">Record</h2>
    <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Record, pans sideways">
      <table class="record min-w-[620px]">
        <thead>
          <tr>
            <th>when</th>
            <th>entry</th>
            <th>by</th>
            <th>result</th>
            <th class="num">fibre total</th>
            <th class="no-print"><span class="sr-only">strike out</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in shown" :key="r.kind + r.id" :class="r.struck ? 'text-ink2' : ''">
            <td class="whitespace-nowrap" :class="r.struck ? 'line-through' : ''">{{ when(r.at, zone) }}</td>
            <td>
              <span :class="r.struck ? 'line-through' : ''"
                ><b class="font-[650]">{{ r.title }}</b> {{ r.detail }}</span
              >
              <span v-if="r.struck" class="block text-xs"
                >Struck out by {{ r.struck.person }}, {{ when(r.struck.at, zone) }}:
                {{ withTimes(r.struck.reason, zone) }}</span
              >
            </td>
            <td class="whitespace-nowrap">{{ r.person }}</td>
            <td :class="r.struck ? 'line-through' : ''">
              {{ r.result
              }}<span
                v-if="r.kind === 'gauge' && !r.struck && misread.includes(r.id)"
                class="block text-xs font-semibold text-look"
                >counts as misread</span
              >
            </td>
            <td class="num">{{ ((r.fibreG ?? 0) / 1000).toFixed(3) }} kg</td>
            <td class="no-print num">
              <button v-if="!r.struck" type="button" class="button plain text-[13px]" @click="$emit('strike', r)">
                Strike out<span class="sr-only"> {{ r.title }} of {{ when(r.at, zone) }}</span>
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="record.length === 0" class="p-2">Nothing has happened to this nozzle yet.</p>
    <button v-if="record.length > 12 && !all" type="button" class="button plain" @click="all = true">
      Show {{ record.length }} entries
    </button>
  </div>
</template>
