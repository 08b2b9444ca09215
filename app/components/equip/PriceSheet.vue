<script setup lang="ts">
/** What parts or nozzles cost this shop, and how long fitting one takes. Kept beside the catalogue's start values. */
import { ref, watch } from 'vue'
import { pricesFields } from '#shared/entries/shop'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { ProblemError } from '~/lib/api'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const props = defineProps<{
  open: boolean
  title: string
  items: readonly { key: string; label: string; price: number; minutes: number }[]
}>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const ui = useUi()
const typed = ref<Record<string, { price: number | null; minutes: number | null }>>({})
const errors = ref<Record<string, string>>({})
const version = ref(0)
watch(
  () => props.open,
  open => {
    if (!open || !shop.data) return
    errors.value = {}
    version.value = shop.data.settings.version
    const own = shop.data.settings.prices
    typed.value = Object.fromEntries(
      props.items.map(i => [i.key, { price: own[i.key]?.price ?? i.price, minutes: own[i.key]?.minutes ?? i.minutes }]),
    )
  },
)
const edits = useRecordEdit()
async function save(): Promise<void> {
  errors.value = {}
  const starts = new Map(props.items.map(i => [i.key, i]))
  // what equals the catalogue's start value is no price of the shop's own
  const own = Object.entries(typed.value).filter(
    ([k, p]) => p.price !== starts.get(k)!.price || p.minutes !== starts.get(k)!.minutes,
  )
  const kept = Object.entries(shop.data!.settings.prices).filter(([k]) => !starts.has(k))
  const checked = pricesFields.safeParse({ prices: Object.fromEntries([...kept, ...own]) })
  if (!checked.success) {
    for (const i of checked.error.issues) errors.value[i.path.slice(1).join('.')] = i.message
    return
  }
  try {
    await edits.save('prices', 1, version.value, checked.data)
    await shop.refresh()
    ui.say('Prices changed.')
    emit('close')
  } catch (error) {
    errors.value.all =
      error instanceof ProblemError && error.problem.type === 'urn:iron-nozzle:stale'
        ? 'Someone changed the settings meanwhile; close this and open it again.'
        : editFailure(error)
  }
}
const id = (key: string) => key.replaceAll(/\W+/g, '-')
</script>

<template>
  <ModalSheet :open="open" :title="title" wide @close="emit('close')">
    <form class="grid gap-2" @submit.prevent="save">
      <div v-for="i in items" :key="i.key" class="grid grid-cols-2 items-start gap-3">
        <FieldNumber
          v-if="typed[i.key]"
          :id="`price-${id(i.key)}`"
          v-model="typed[i.key]!.price"
          :label="`${i.label}, price`"
          :unit="shop.data?.settings.currency || undefined"
          :error="errors[`${i.key}.price`]"
        />
        <FieldNumber
          v-if="typed[i.key]"
          :id="`minutes-${id(i.key)}`"
          v-model="typed[i.key]!.minutes"
          label="Work to fit it"
          unit="min"
          :error="errors[`${i.key}.minutes`]"
        />
      </div>
      <p v-if="errors.all" class="font-semibold text-stop" role="alert">{{ errors.all }}</p>
      <div class="flex gap-2">
        <button type="submit" class="button first">Save</button
        ><button type="button" class="button" @click="emit('close')">Cancel</button>
      </div>
    </form>
  </ModalSheet>
</template>
