<script setup lang="ts">
/** A new or rebuilt printer: what its commissioning asks, worked out from its stack, before it begins. */
import { computed } from 'vue'
import { commissionFacts, commissionSteps } from '#core/procedures'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useEquip } from '~/composables/equip'
import { usePrinterChoice } from '~/composables/printer-choice'

useHead({ title: 'New or rebuilt · Iron Nozzle' })
const router = useRouter()
const { data, failure } = useEquip()
const standingOf = (id: number) => data.value?.standing.find(s => s.printerId === id)?.standing ?? null
const printerId = usePrinterChoice(
  () => data.value?.printers ?? [],
  id => standingOf(id)?.toCommission ?? false,
)
const printer = computed(() => data.value?.printers.find(p => p.id === printerId.value) ?? null)
const stands = computed(() => (printerId.value === null ? null : standingOf(printerId.value)))
const under = computed(() => stands.value?.procedures[0] ?? null)
const steps = computed(() =>
  printer.value && data.value ? commissionSteps(commissionFacts(printer.value, data.value.rules)) : [],
)
const lead = computed(() => {
  const p = printer.value
  if (!p) return null
  if (under.value) return { mark: 'look' as const, text: `${under.value.title} is under way.` }
  return stands.value?.toCommission
    ? { mark: 'stop' as const, text: `${p.name} is not commissioned: it must not run before it is.` }
    : { mark: 'fine' as const, text: `${p.name} counts as running. After a rebuild, commission it again.` }
})
const form = useEntryForm('/api/procedures')
async function begin(): Promise<void> {
  const body = { kind: 'commission', printerId: printerId.value, occurredAt: new Date().toISOString() }
  const done = await form.send(body, `Commissioning of ${printer.value!.name}`)
  if (done !== null && done !== 'queued') await router.push(`/change/${done.id}`)
}
</script>

<template>
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="data && data.printers.length === 0" />
    <template v-else-if="data && lead">
      <FieldSelect
        id="commission-printer"
        v-model="printerId"
        class="mb-3 max-w-[420px]"
        label="Printer"
        :options="data.printers.map(p => ({ value: p.id as number | null, text: p.name }))"
      />
      <p
        class="mb-3 flex items-start gap-2 text-[17px] leading-snug font-[680]"
        :class="lead.mark === 'stop' ? 'text-stop' : ''"
        role="status"
      >
        <VerdictMark :verdict="lead.mark" :size="20" class="mt-[2px]" />{{ lead.text }}
      </p>
      <NuxtLink v-if="under" :to="`/change/${under.id}`" class="button first">Go on with it</NuxtLink>
      <template v-else>
        <h2 class="mb-1">Its {{ steps.length }} steps, by its stack</h2>
        <ol class="sheet max-w-[760px]">
          <li v-for="(s, i) in steps" :key="s.key" class="flex gap-3 border-t border-rule px-3 py-2 first:border-t-0">
            <span class="w-6 text-right text-ink2">{{ i + 1 }}</span>
            <span
              ><b>{{ s.title }}</b
              ><span v-if="s.proof" class="block text-sm text-ink2">proved by its record in Verify</span></span
            >
          </li>
        </ol>
        <p v-for="e in Object.values(form.errors.value)" :key="e" class="mt-2 font-semibold text-stop" role="alert">
          {{ e }}
        </p>
        <p v-if="form.problem.value && !form.problem.value.errors" class="mt-2 font-semibold text-stop" role="alert">
          {{ form.problem.value.title }}
        </p>
        <button
          type="button"
          class="button first mt-3 w-full max-w-[760px] !min-h-[56px] !text-[17px]"
          :disabled="form.busy.value"
          @click="begin()"
        >
          Begin the commissioning
        </button>
      </template>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the stacks"
    />
  </div>
</template>
