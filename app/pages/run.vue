<script setup lang="ts">
/** Run: what went through which nozzle, from the job file or by hand. */
import type { RunEffect } from '#shared/answers/runs'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import FileDrop from '~/components/run/FileDrop.vue'
import RunForm from '~/components/run/RunForm.vue'
import RunSaved from '~/components/run/RunSaved.vue'
import RunList from '~/components/run/RunList.vue'
import ScanView from '~/components/run/ScanView.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import { againAt, useAgain } from '~/composables/again'
import { useAnswer } from '~/composables/answer'
import { focusOnceFree } from '~/lib/free-focus'
import { useScans } from '~/state/scans'
import { useShop } from '~/state/shop'

useHead({ title: 'Run · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const scans = useScans()
const selected = ref<number | null>(null)
const current = computed(() => scans.reads.find(r => r.id === selected.value) ?? null)
const usable = computed(() =>
  current.value?.scan && (current.value.scan.totalExtrudedMm ?? 0) > 0 ? current.value.scan : null,
)
const draft = computed(() => (route.query.draft ? String(route.query.draft) : null))
const nozzleTag = computed(() => (route.query.nozzle ? String(route.query.nozzle) : null))
const show = computed(() => (route.query.show ? Number(route.query.show) : null))
const striking = ref<{ target: 'run'; id: number; says: string; again: string } | null>(null)
const strike = (id: number, name: string) => {
  striking.value = { target: 'run', id, says: `Run “${name}”`, again: againAt('/run', 'run', id) }
}
const { id: againId, old: before, failure: noRun } = useAgain('run')
watch(before, old => {
  if (!old) return
  select(null)
  // one came from the list below: the form comes into sight, at what it asks first
  void focusOnceFree('again-reason')
})
/**
 * The check this run was made after, and its job: the dropped file when it is here, else the shop's own copy of the
 * scan.
 */
const checkId = computed(() => (route.query.precheck ? Number(route.query.precheck) : null))
const { data: check } = useAnswer('/api/prechecks/{id}', {
  params: () => (checkId.value === null ? null : { id: checkId.value }),
})
watch(
  check,
  c => {
    if (c && selected.value === null)
      selected.value = scans.reads.find(r => r.sha256 !== '' && r.sha256 === c.contentSha256 && !r.logged)?.id ?? null
  },
  { immediate: true },
)
const ofCheck = computed(() => (check.value?.id === checkId.value ? check.value : null))
const job = computed(() => {
  if (usable.value)
    return {
      scan: usable.value,
      name: current.value!.file.name,
      sha256: current.value!.sha256,
      bytes: current.value!.file.size,
    }
  return current.value === null && ofCheck.value?.job
    ? {
        scan: ofCheck.value.job.scan,
        name: ofCheck.value.job.name,
        sha256: ofCheck.value.job.contentSha256,
        bytes: ofCheck.value.job.sizeBytes,
      }
    : null
})
const showForm = computed(() => current.value === null || usable.value !== null)

/** What was saved last, until another run is asked for: a blank form would be filled in again. */
const done = shallowRef<{ effect: RunEffect | 'queued'; name: string } | null>(null)
const nextFile = computed(() => (done.value && usable.value ? current.value!.file.name : null))
function strikeClosed(struck: boolean): void {
  if (struck && done.value?.effect !== 'queued' && done.value?.effect.runId === striking.value?.id) done.value = null
  striking.value = null
}
function again(): void {
  done.value = null
  void nextTick(() => document.getElementById('run-printer')?.focus())
}
function select(id: number | null): void {
  selected.value = id
  done.value = null
}
function saved(effect: RunEffect | 'queued', name: string): void {
  done.value = { effect, name }
  if (current.value) current.value.logged = true
  selected.value = scans.reads.find(r => !r.logged && r.state === 'read')?.id ?? null
  if (draft.value || checkId.value !== null || againId.value !== null) void navigateTo({ query: {} }, { replace: true })
}
const sentence = computed(() => {
  const open = scans.reads.filter(r => r.state === 'read' && !r.logged && (r.scan?.totalExtrudedMm ?? 0) > 0)
  if (open.length > 0)
    return `${open.length === 1 ? 'One job file is' : `${open.length} job files are`} read and not logged yet.`
  return 'Drop the job file that was printed, or log by hand what went through. A failed job counts as well.'
})
</script>

<template>
  <div>
    <h1 class="mb-1">Run</h1>
    <p class="mb-3 text-[15px] font-[650]">{{ sentence }}</p>
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else>
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[300px_minmax(0,1fr)]">
        <div class="grid gap-2">
          <FileDrop :selected="selected" @select="select" />
          <button v-if="current" type="button" class="button" @click="select(null)">Log by hand instead</button>
        </div>
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <ScanView
            v-if="current?.scan"
            :scan="current.scan"
            :name="current.file.name"
            @dialect="
              scans.again(current!.id, {
                dialect: current!.dialect === 'eIndependent' ? 'eFollowsPositioning' : 'eIndependent',
              })
            "
          />
          <p v-if="ofCheck" class="sheet flex flex-wrap items-center gap-x-3 px-3">
            <NuxtLink :to="`/prepare/check/${ofCheck.id}`" class="act">The check before this run</NuxtLink
            ><span>{{ ofCheck.may ? 'it might start' : 'it was stored with open lines' }}; the run keeps it.</span>
          </p>
          <p v-if="noRun" class="font-semibold text-stop" role="alert">
            {{ noRun }} <NuxtLink class="act" to="/run">Log a new run</NuxtLink>
          </p>
          <p v-if="!current?.scan && current?.state === 'reading'" class="sheet p-3" role="status">
            Reading {{ current.file.name }}: {{ Math.floor(current.share * 100) }} %
          </p>
          <RunSaved
            v-if="done"
            :key="done.effect === 'queued' ? done.name : done.effect.runId"
            :effect="done.effect"
            :name="done.name"
            :next="nextFile"
            @again="again"
            @strike="id => strike(id, done!.name)"
          />
          <RunForm
            v-show="done === null"
            v-if="showForm && (checkId === null || ofCheck) && (againId === null || before)"
            :key="`${selected ?? 'hand'}-${draft ?? ''}-${checkId ?? ''}-${againId ?? ''}`"
            :scan="job?.scan ?? null"
            :file-name="job?.name ?? ''"
            :sha256="job?.sha256 ?? ''"
            :size-bytes="job?.bytes ?? 0"
            :nozzle-tag="nozzleTag"
            :draft="draft"
            :check="ofCheck"
            :again="before"
            @saved="saved"
            @reread="d => current && scans.again(current.id, { diameterMm: d })"
          />
        </div>
      </div>
      <RunList class="mt-5" :show="show" @strike="r => strike(r.id, r.name)" />
    </template>
    <StrikeSheet :target="striking" @close="strikeClosed" />
  </div>
</template>
