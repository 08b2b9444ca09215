<script setup lang="ts">
/** A stored check: readable, printable, and where the run is logged from. */
import { counted } from '#core/words'
import { computed } from 'vue'
import { verdictOf } from '#core/precheck'
import CheckLines from '~/components/prepare/CheckLines.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { when } from '#shared/time'
import { useShop } from '~/state/shop'

const route = useRoute()
const shop = useShop()
useHead({ title: 'Check · Iron Nozzle' })
const { data, failure } = useAnswer('/api/prechecks/{id}', { params: () => ({ id: String(route.params.id) }) })
const verdict = computed(() => (data.value ? verdictOf(data.value.lines, data.value.answers) : null))
const words = computed(() => {
  const v = verdict.value
  if (!v) return ''
  if (data.value!.may) return `Checked: this job might start${v.waived ? `, with ${v.waived} waived` : ''}.`
  return `Stored with ${counted(v.open.length, 'open line')}: no permission to start.`
})
const print = () => window.print()
</script>

<template>
  <div>
    <PrepareTabs :failure="failure" />
    <template v-if="data && verdict">
      <p class="mb-2 flex items-start gap-2 text-[17px] font-[680]" :class="data.may ? '' : 'text-look'">
        <VerdictMark :verdict="data.may ? 'fine' : 'look'" :size="20" class="mt-[2px]" />{{ words }}
      </p>
      <dl class="title-block mb-3 sm:grid-cols-4">
        <div>
          <dt>Job</dt>
          <dd>{{ data.name }}</dd>
        </div>
        <div>
          <dt>Printer</dt>
          <dd>{{ data.printer }}, {{ data.head }}</dd>
        </div>
        <div>
          <dt>Spool</dt>
          <dd>{{ data.spool ?? 'none' }}, {{ data.material }}</dd>
        </div>
        <div>
          <dt>Checked</dt>
          <dd>{{ when(data.occurredAt, shop.zone) }}, {{ data.person }}</dd>
        </div>
      </dl>
      <CheckLines :lines="data.lines" :answers="data.answers" readonly />
      <p v-if="data.note" class="mt-2">{{ data.note }}</p>
      <div class="no-print mt-3 flex flex-wrap gap-2">
        <NuxtLink v-if="data.run === null" :to="`/run?precheck=${data.id}`" class="button first"
          >Log the run when it is done</NuxtLink
        ><NuxtLink v-else :to="`/run?show=${data.run}`" class="button">Its run</NuxtLink>
        <button type="button" class="button" @click="print">Print</button
        ><NuxtLink to="/prepare/check" class="act">Another check</NuxtLink>
      </div>
    </template>
  </div>
</template>
