<script setup lang="ts">
/** Asks for the shop's time zone while none was chosen, or the stored one is no zone; proposes the browser's. */
import { computed, ref } from 'vue'
import { isZone } from '#shared/time'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { isBeingSetUp } from '~/lib/first-hour'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const shop = useShop()
const ui = useUi()
const edits = useRecordEdit()
const route = useRoute()
const own = Intl.DateTimeFormat().resolvedOptions().timeZone
const settings = computed(() => shop.data?.settings ?? null)
const unknown = computed(() => settings.value !== null && !isZone(settings.value.timeZone))
/** Nobody has set up this shop yet: its zone is the one that every shop starts with. */
const untouched = computed(
  () => settings.value?.version === 1 && settings.value.demoAnchor === null && own !== 'UTC' && !isLed.value,
)
/** What leads a shop through its first hour asks for the zone by itself. */
const isLed = computed(() => route.path === '/' && isBeingSetUp(shop.data))
const failure = ref('')

async function use(timeZone: string): Promise<void> {
  const { id, version, shopName, acceptedRisk } = settings.value!
  try {
    await edits.save('settings', id, version, { shopName, acceptedRisk, timeZone })
    ui.say(`Times are those of ${timeZone}`)
    await shop.refresh()
  } catch (error) {
    failure.value = editFailure(error)
  }
}
</script>

<template>
  <section
    v-if="settings && (unknown || untouched)"
    class="sheet no-print mb-3 flex flex-wrap items-center gap-3 px-3 py-2"
    aria-label="Time zone"
  >
    <p class="font-semibold">
      {{
        unknown ? `“${settings.timeZone}” is no time zone; times are shown in UTC.` : 'In which time zone is the shop?'
      }}
    </p>
    <button v-if="isZone(own)" type="button" class="button first" @click="use(own)">Use {{ own }}</button>
    <button v-if="own !== 'UTC'" type="button" class="button" @click="use('UTC')">Use UTC</button>
    <span class="text-sm text-ink2">Another one: Stores, Edit the shop.</span>
    <span v-if="failure" role="alert" class="font-semibold text-stop">{{ failure }}</span>
  </section>
</template>
