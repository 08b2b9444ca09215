<script setup lang="ts">
/** What an empty shop does first, in its order: name and zone, printers, nozzles and spools, the first question. */
import { computed, reactive, ref } from 'vue'
import FieldText from '~/components/ui/FieldText.vue'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { checks } from '~/lib/checks'
import { leadToWrong } from '~/lib/first-wrong'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const shop = useShop()
const ui = useUi()
const edits = useRecordEdit()
const d = computed(() => shop.data!)
const settings = computed(() => d.value.settings)
/** Nobody has edited it yet: its name and zone are those that every shop starts with. */
const isNamed = computed(() => settings.value.version > 1)
const v = reactive({ shopName: '', timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone })
const failure = ref('')
/** What is wrong with a field, by its name. */
const errors = ref<Record<string, string>>({})
async function name(): Promise<void> {
  const { id, version, acceptedRisk } = settings.value
  const wrong = (await checks()).edit('settings', { ...v, acceptedRisk })
  errors.value = Object.fromEntries(wrong.map(w => [w.field, w.message]))
  if (wrong.length > 0) {
    leadToWrong()
    return
  }
  try {
    await edits.save('settings', id, version, { ...v, acceptedRisk })
    ui.say(`${v.shopName}: times are those of ${v.timeZone}`)
    failure.value = ''
    await shop.refresh()
  } catch (error) {
    failure.value = editFailure(error)
  }
}
const ZONES = Intl.supportedValuesOf('timeZone')
const steps = computed(() => [
  {
    what: 'Printers',
    of: 'printers',
    done: d.value.printers.length,
    one: '/equip/stack/new',
    says: 'Each from a stack to start from; its parts are put right later.',
  },
  {
    what: 'Nozzles',
    of: 'nozzles',
    done: d.value.nozzles.length,
    one: '/stores?add=nozzle',
    says: 'Type, and what it sits on. A type that is not known yet is added with it.',
  },
  {
    what: 'Spools',
    of: 'spools',
    done: d.value.spools.length,
    one: '/stores?add=spool&tab=Spools',
    says: 'Material, and what is left. A part-used one by its weight now.',
  },
])
const next = computed(() => steps.value.find(s => s.done === 0)?.of ?? null)
</script>

<template>
  <section class="sheet mb-4 max-w-[760px] p-5" aria-labelledby="first-hour">
    <h2 id="first-hour">
      {{ d.printers.length === 0 ? 'This shop has no printer yet' : 'This shop is being set up' }}
    </h2>
    <p class="my-2">In this order, each from a table you have already, or one by one.</p>
    <ol class="grid gap-3">
      <li class="border-t border-rule pt-3">
        <p v-if="isNamed" class="font-semibold">
          1 · {{ settings.shopName }},
          <span class="font-normal text-ink2">on the clock of {{ settings.timeZone }}</span>
        </p>
        <form v-else class="grid gap-2" @submit.prevent="name">
          <p class="font-semibold">1 · Name and time zone</p>
          <div class="grid gap-3 sm:grid-cols-2">
            <FieldText id="shop-name" v-model="v.shopName" label="Name of the shop" :error="errors.shopName" />
            <FieldText
              id="shop-zone"
              v-model="v.timeZone"
              label="Time zone"
              :list="ZONES"
              :error="errors.timeZone"
              hint="like Europe/London"
            />
          </div>
          <p v-if="failure" class="font-semibold text-stop" role="alert">{{ failure }}</p>
          <p><button type="submit" class="button first">Save</button></p>
        </form>
      </li>
      <li v-for="(s, i) in steps" :key="s.of" class="border-t border-rule pt-3">
        <p class="font-semibold">
          {{ i + 2 }} · {{ s.what }}<span v-if="s.done > 0" class="font-normal text-ink2">: {{ s.done }} entered</span>
        </p>
        <template v-if="s.done === 0">
          <p class="text-sm text-ink2">{{ s.says }}</p>
          <p class="mt-1 flex flex-wrap items-center gap-3">
            <NuxtLink
              :to="`/stores/table?of=${s.of}`"
              class="button inline-flex items-center"
              :class="isNamed && next === s.of ? 'first' : ''"
              >Paste a table<span class="sr-only"> of {{ s.of }}</span></NuxtLink
            ><NuxtLink :to="s.one" class="act">{{
              i === 0 ? 'Add the first printer' : `Add one ${s.of.slice(0, -1)}`
            }}</NuxtLink>
          </p>
        </template>
      </li>
      <li class="border-t border-rule pt-3">
        <p class="font-semibold">5 · The first question</p>
        <p class="text-sm text-ink2">Which printer and nozzle may print a material, and what would have to change.</p>
        <p v-if="next === null" class="mt-1">
          <NuxtLink to="/equip" class="button first inline-flex items-center">Ask it</NuxtLink>
        </p>
      </li>
    </ol>
  </section>
</template>
