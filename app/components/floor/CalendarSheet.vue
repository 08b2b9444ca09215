<script setup lang="ts">
/** Calendars that read what is due: a file now, or a private address that is read again and again. */
import { createSHA256 } from 'hash-wasm'
import { computed, ref } from 'vue'
import type { Feed } from '#shared/answers/due'
import { isLoopback } from '#shared/labels'
import { day } from '#shared/time'
import FieldText from '~/components/ui/FieldText.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { useEntryForm } from '~/composables/entry-form'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

defineProps<{ feeds: readonly Feed[] }>()
defineEmits<{ close: [] }>()
const shop = useShop()
const ui = useUi()
const form = useEntryForm('/api/feeds')
const edit = useRecordEdit()
const name = ref('')
/** The address that was made last: it is shown once, and kept nowhere. */
const made = ref<{ name: string; address: string } | null>(null)
const failure = ref('')
const SECRET_BYTES = 24
/** On this machine alone: no calendar elsewhere reaches it. */
const loopback = computed(() => isLoopback(location.hostname))

async function give(): Promise<void> {
  const secret = Array.from(crypto.getRandomValues(new Uint8Array(SECRET_BYTES)), b =>
    b.toString(16).padStart(2, '0'),
  ).join('')
  const hash = await createSHA256()
  const tokenSha256 = hash.init().update(secret).digest('hex')
  const done = await form.send({ name: name.value, tokenSha256 }, `Calendar ${name.value}`)
  if (done === null || done === 'queued') return
  made.value = { name: name.value, address: `${location.origin}/api/feeds/${secret}.ics` }
  name.value = ''
}
async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(made.value!.address)
    ui.say('The address is copied.')
  } catch {
    ui.say('The browser does not let it be copied: mark it and copy it by hand.', 'look')
  }
}
async function revoke(f: Feed): Promise<void> {
  failure.value = ''
  try {
    await edit.save('calendar-feeds', f.id, f.version, { name: f.name, revoked: true })
    if (made.value?.name === f.name) made.value = null
    ui.say(`${f.name}: its address is revoked.`)
    await shop.load()
  } catch (e) {
    failure.value = editFailure(e)
  }
}
</script>

<template>
  <ModalSheet open title="Calendar" @close="$emit('close')">
    <div class="grid gap-3">
      <p>
        <a href="/api/calendar" download="what-is-due.ics" class="act">Download what is due as an iCalendar file</a>
      </p>
      <p class="text-sm text-ink2">
        An address is read by a calendar again and again. It tells printers and what to do, no jobs and no people;
        whoever has it may read it, and do nothing.
      </p>
      <ul v-if="feeds.length > 0" aria-label="Addresses given">
        <li v-for="f in feeds" :key="f.id" class="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
          <span :class="f.revoked ? 'text-ink2 line-through' : 'font-semibold'">{{ f.name }}</span>
          <span class="text-sm text-ink2"
            >{{ f.by }}, {{ day(f.at, shop.zone) }}{{ f.revoked ? '; revoked' : '' }}</span
          >
          <button v-if="!f.revoked" type="button" class="button plain ml-auto" @click="revoke(f)">
            Revoke<span class="sr-only"> {{ f.name }}</span>
          </button>
        </li>
      </ul>
      <p v-if="failure" class="font-semibold text-stop" role="alert">{{ failure }}</p>
      <form class="grid gap-2" @submit.prevent="give">
        <FieldText id="feed-name" v-model="name" label="Whose calendar" :error="form.errors.value.name" />
        <p><button type="submit" class="button first" :disabled="form.busy.value">Give it an address</button></p>
      </form>
      <div v-if="made" class="border-l-4 border-look pl-3" role="status">
        <p class="font-[650]">The address for {{ made.name }}; it is shown this once:</p>
        <p class="break-all select-all" data-address>{{ made.address }}</p>
        <p v-if="loopback" class="text-sm text-look">
          It works on this machine alone: open this page by the shop's own address for others.
        </p>
        <p><button type="button" class="button" @click="copy">Copy it</button></p>
      </div>
    </div>
  </ModalSheet>
</template>
