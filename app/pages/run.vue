<script setup lang="ts">
/** Run: what went through which nozzle, from the job file or by hand. */
import { computed, ref } from 'vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import FileDrop from '~/components/run/FileDrop.vue'
import RunForm from '~/components/run/RunForm.vue'
import RunList from '~/components/run/RunList.vue'
import ScanView from '~/components/run/ScanView.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import { useScans } from '~/stores/scans'
import { useShop } from '~/stores/shop'

useHead({ title: 'Run · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const scans = useScans()
const selected = ref<number | null>(null)
const current = computed(() => scans.reads.find(r => r.id === selected.value) ?? null)
const usable = computed(() => current.value?.scan && (current.value.scan.totalExtrudedMm ?? 0) > 0 ? current.value.scan : null)
const draft = computed(() => route.query.draft ? String(route.query.draft) : null)
const nozzleTag = computed(() => route.query.nozzle ? String(route.query.nozzle) : null)
const show = computed(() => route.query.show ? Number(route.query.show) : null)
const striking = ref<{ target: 'run', id: number, says: string } | null>(null)
const showForm = computed(() => current.value === null || usable.value !== null)

function saved(): void {
  if (current.value) current.value.logged = true
  selected.value = scans.reads.find(r => !r.logged && r.state === 'read')?.id ?? null
  if (draft.value) void navigateTo({ query: {} }, { replace: true })
}
const sentence = computed(() => {
  const open = scans.reads.filter(r => r.state === 'read' && !r.logged && (r.scan?.totalExtrudedMm ?? 0) > 0)
  if (open.length > 0) return `${open.length === 1 ? 'One job file is' : `${open.length} job files are`} read and not logged yet.`
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
          <FileDrop :selected="selected" @select="id => selected = id" />
          <button v-if="current" type="button" class="button" @click="selected = null">Log by hand instead</button>
        </div>
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <ScanView v-if="current?.scan" :scan="current.scan" :name="current.file.name" @dialect="scans.again(current!.id, { dialect: current!.dialect === 'eIndependent' ? 'eFollowsPositioning' : 'eIndependent' })" />
          <p v-else-if="current?.state === 'reading'" class="sheet p-3" role="status">Reading {{ current.file.name }}: {{ Math.floor(current.share * 100) }} %</p>
          <RunForm
            v-if="showForm" :key="`${selected ?? 'hand'}-${draft ?? ''}`" :scan="usable" :file-name="current?.file.name ?? ''" :sha256="current?.sha256 ?? ''" :size-bytes="current?.file.size ?? 0"
            :nozzle-tag="nozzleTag" :draft="draft" @saved="saved" @reread="d => current && scans.again(current.id, { diameterMm: d })"
          />
        </div>
      </div>
      <RunList class="mt-5" :show="show" @strike="r => striking = { target: 'run', id: r.id, says: `Run “${r.name}”` }" />
    </template>
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>
