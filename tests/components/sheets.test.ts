import { flushPromises } from '@vue/test-utils'
import { beforeEach, expect, test, vi } from 'vitest'
import { defineComponent, h, nextTick, reactive } from 'vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import AddRecord from '~/components/stores/AddRecord.vue'
import EditRecord from '~/components/stores/EditRecord.vue'
import { ProblemError } from '~/lib/api'
import { useOutbox } from '~/state/outbox'
import { useUi } from '~/state/ui'
import { shown } from './support'

const patch = vi.hoisted(() => vi.fn())
vi.mock('~/lib/api', async original => ({ ...(await original<object>()), patch, read: () => Promise.resolve([]) }))

beforeEach(() => {
  sessionStorage.clear()
  patch.mockReset()
  document.body.innerHTML = ''
  history.replaceState(null, '')
  // the stand-in browser knows no way back
  vi.spyOn(history, 'back').mockImplementation(() => {
    history.replaceState({ ...history.state, sheet: undefined }, '')
    dispatchEvent(new PopStateEvent('popstate'))
  })
})
/** The sheet is laid over the page, outside of what opened it. */
const page = () => document.body
const input = (id: string) => page().querySelector<HTMLInputElement>(`#${id}`)!
const button = (name: string) => [...page().querySelectorAll('button')].find(b => b.textContent!.trim() === name)!
async function type(id: string, text: string) {
  input(id).value = text
  input(id).dispatchEvent(new Event('input'))
  input(id).dispatchEvent(new Event('change'))
  await nextTick()
}
async function press(name: string) {
  button(name).click()
  await flushPromises()
}
/** What is sent, and what comes back. */
function answering(outcome: object) {
  const submit = vi.fn(() => Promise.resolve(outcome as never))
  useOutbox().submit = submit as never
  return submit
}

/** A page that opens a strike sheet on a run, and another one on a gauge. */
async function strikes() {
  const state = reactive({ target: null as { target: 'run' | 'gauge'; id: number; says: string } | null })
  const w = shown(
    defineComponent(() => () => h(StrikeSheet, { target: state.target, onClose: () => (state.target = null) })),
    { attachTo: document.body },
  )
  const open = async (target: 'run' | 'gauge' = 'run') => {
    state.target = { target, id: 7, says: target === 'run' ? 'Run vane' : 'Gauge N-014' }
    await settle()
    await vi.waitFor(() => expect(input('strike-reason')).not.toBeNull())
  }
  return { w, state, open }
}
const settle = () => new Promise(done => setTimeout(done, 30))

test('a sheet sends what was typed, says its effect and closes', async () => {
  const { w, state, open } = await strikes()
  const submit = answering({ kind: 'saved', answer: { id: 1, nozzles: ['N-014'] } })
  await open()
  await type('strike-reason', 'logged twice')
  await press('Strike out')
  expect(submit.mock.calls[0]!.slice(0, 3)).toEqual([
    '/api/strikes',
    { target: 'run', targetId: 7, reason: 'logged twice' },
    'Strike out Run vane',
  ])
  expect(useUi().message!.text).toBe('Run vane is struck out and stays readable; N-014 reckoned anew.')
  expect(state.target).toBeNull()
  await open()
  expect(input('strike-reason').value).toBe('')
  w.unmount()
})
test('closed with Esc or Back, what was typed is there again; given up, it is not', async () => {
  const { w, state, open } = await strikes()
  await open()
  await type('strike-reason', 'not this one')
  page()
    .querySelector('[role=dialog]')!
    .dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))
  await flushPromises()
  expect(state.target).toBeNull()
  await open()
  expect(input('strike-reason').value).toBe('not this one')
  expect(page().textContent).toContain('What you typed before is still here.')
  await press('Keep it')
  expect(state.target).toBeNull()
  await open()
  expect(input('strike-reason').value).toBe('')
  expect(page().textContent).not.toContain('What you typed before')
  w.unmount()
})
test('what is typed about one thing is not there for another; Start again empties it', async () => {
  const { w, state, open } = await strikes()
  await open('run')
  await type('strike-reason', 'of the run')
  state.target = null
  await open('gauge')
  expect(input('strike-reason').value).toBe('')
  state.target = null
  await open('run')
  await press('Start again')
  expect(input('strike-reason').value).toBe('')
  expect(sessionStorage.length).toBe(0)
  w.unmount()
})
test('a refusal that belongs to no field of the sheet is shown all the same, and nothing is lost', async () => {
  const { w, open } = await strikes()
  answering({
    kind: 'refused',
    problem: {
      type: 'urn:iron-nozzle:field',
      status: 422,
      title: '',
      errors: [{ field: 'targetId', message: 'It is struck out already' }],
    },
  })
  await open()
  await type('strike-reason', 'logged twice')
  await press('Strike out')
  expect([...page().querySelectorAll('[role=alert]')].map(x => x.textContent)).toEqual(['It is struck out already'])
  expect(input('strike-reason').value).toBe('logged twice')
  w.unmount()
})
test('an open sheet is a step in the history: Back closes it, closing takes the step back', async () => {
  const { w, state, open } = await strikes()
  const step = () => (history.state as { sheet?: string } | null)?.sheet
  const opened = async () => {
    await open()
    await vi.waitFor(() => expect(step()).toBeTypeOf('string'))
  }
  await opened()
  history.back()
  await flushPromises()
  expect(state.target).toBeNull()
  await opened()
  const before = vi.mocked(history.back).mock.calls.length
  state.target = null
  // no fixed time: on a busy machine a sheet takes as long as it takes
  await vi.waitFor(() => expect(history.back).toHaveBeenCalledTimes(before + 1))
  expect(step()).toBeUndefined()
  w.unmount()
})

const record = {
  title: 'Edit person Ada',
  fields: [
    { key: 'name', label: 'Name', kind: 'text' as const },
    { key: 'role', label: 'Role', kind: 'text' as const },
  ],
  start: { name: 'Ada', role: 'technician', outOfUse: false },
  says: (v: Record<string, unknown>) => String(v.name),
}
const edited = (version: number) => ({ ...record, edit: { kind: 'people' as const, id: 3, version } })

test('an edit kept over a reload stays one of the version it was typed over', async () => {
  patch.mockResolvedValue({ version: 3 })
  const first = shown(EditRecord, { props: { record: edited(2) }, attachTo: document.body })
  await flushPromises()
  await type('record-name', 'Ada B')
  first.unmount() // the page is read anew; meanwhile someone else has stored version 5
  const w = shown(EditRecord, { props: { record: edited(5) }, attachTo: document.body })
  await flushPromises()
  expect(input('record-name').value).toBe('Ada B')
  patch.mockRejectedValueOnce(
    new ProblemError({
      type: 'urn:iron-nozzle:stale',
      status: 409,
      title: 'Changed',
      current: { name: 'Ida', role: 'technician', version: 5 },
    }),
  )
  await press('Save')
  expect(patch.mock.calls[0]![2]).toMatchObject({ version: 2 })
  expect(page().textContent).toContain('Nothing was overwritten')
  const cells = [...page().querySelectorAll('td')].map(x => x.textContent)
  expect(cells).toEqual(['Name', 'Ida', 'Ada B'])
  expect(button('Save').disabled).toBe(true)
  await press('Keep mine, then save')
  await press('Save')
  expect(patch.mock.calls[1]![2]).toMatchObject({ version: 5, values: { name: 'Ada B' } })
  w.unmount()
})
test('a share is shown and typed in per cent, kept as a share, and both versions say so', async () => {
  const of = {
    title: 'Edit the shop',
    fields: [{ key: 'acceptedRisk', label: 'Chance that makes a gauge due', kind: 'number' as const }],
    start: { shopName: 'A shop', timeZone: 'UTC', acceptedRisk: 0.2 },
    says: () => 'The shop',
    edit: { kind: 'settings' as const, id: 1, version: 1 },
  }
  const w = shown(EditRecord, { props: { record: of }, attachTo: document.body })
  await flushPromises()
  expect(page().querySelector('label[for="record-acceptedRisk"]')!.textContent).toBe('Chance that makes a gauge due, %')
  expect(input('record-acceptedRisk').value).toBe('20')
  await type('record-acceptedRisk', '14,')
  expect(input('record-acceptedRisk').value, 'while it is typed').toBe('14,')
  await type('record-acceptedRisk', '14,3')
  patch.mockRejectedValueOnce(
    new ProblemError({
      type: 'urn:iron-nozzle:stale',
      status: 409,
      title: 'Changed',
      current: { acceptedRisk: 0.15, version: 2 },
    }),
  )
  await press('Save')
  expect(patch.mock.calls[0]![2]).toMatchObject({ values: { acceptedRisk: 0.143 } })
  expect([...page().querySelectorAll('td')].map(x => x.textContent)).toEqual([
    'Chance that makes a gauge due',
    '15 %',
    '14.3 %',
  ])
  await press('Take what is stored')
  expect(input('record-acceptedRisk').value).toBe('15')
  w.unmount()
})
test('a new record that the server cannot take yet is queued, and the sheet closes', async () => {
  const w = shown(AddRecord, { props: { record: { ...record, route: '/api/people' } }, attachTo: document.body })
  await flushPromises()
  answering({ kind: 'queued', failed: false })
  await type('record-name', 'Cleo')
  await press('Save')
  expect(useUi().message!.text).toContain('Kept here')
  expect(w.emitted('close')).toHaveLength(1)
  w.unmount()
})
