/** Change: the card of a step, what is taken from the shelf, the list of steps, and where the focus goes. */
import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, test, vi } from 'vitest'
import { defineComponent, h, nextTick, reactive, ref } from 'vue'
import type { Step } from '#core/procedures'
import type { ProcedurePage, Tick } from '#shared/answers/change'
import OfferFrame from '~/components/change/OfferFrame.vue'
import PickList from '~/components/change/PickList.vue'
import StepCard from '~/components/change/StepCard.vue'
import StepList from '~/components/change/StepList.vue'
import FieldPhoto from '~/components/ui/FieldPhoto.vue'
import { useKeptFocus } from '~/composables/kept-focus'
import { useLive } from '~/state/live'
import { useOutbox } from '~/state/outbox'
import { shown, words } from './support'

vi.mock('vue-router', () => ({ useRoute: () => ({ path: '/change/hotend' }) }))
vi.mock('~/lib/shrink', () => ({
  shrunk: (f: Blob) =>
    f.type.startsWith('image/') ? Promise.resolve('AAAA') : Promise.reject(new Error('This is no picture')),
}))

const step = (key: string, more: Partial<Step> = {}): Step => ({
  key,
  title: `Do ${key}`,
  says: [],
  hazards: [],
  fields: [],
  wait: null,
  proof: null,
  after: null,
  ...more,
})
const ports = step('ports', {
  fields: [
    { key: 'port heater', label: 'Port of the heater', help: '', required: true, kind: 'text' },
    { key: 'photo', label: 'Picture of the connectors', help: '', required: false, kind: 'photo' },
  ],
})
const plug = step('plug', { recalls: ['port heater', 'port part fan', 'photo'] })
const proof = step('proof', {
  proof: { of: 'cut-out test', guard: 'hotend runaway protection', headId: null, since: 'in' },
})
const heat = step('heat', { wait: { heater: 'nozzle', head: 0, setC: 275 } })
const steps = [ports, plug, proof, heat]
const page = (more: Partial<ProcedurePage> = {}): ProcedurePage => ({
  id: 3,
  kind: 'hotend',
  title: 'Hotend on Aire: H-04 off, H-08 on',
  printer: 'Aire',
  printerId: 4,
  headId: 4,
  done: 0,
  of: steps.length,
  next: null,
  begunAt: '2026-11-27T10:00:00Z',
  by: 'Day technician',
  lastAt: '2026-11-27T10:00:00Z',
  lastBy: 'Day technician',
  ended: null,
  struck: null,
  swap: null,
  hotend: null,
  proofs: { proof: null },
  steps,
  ticks: [],
  changed: [],
  note: '',
  ...more,
})

beforeEach(() => {
  sessionStorage.clear()
})

function cardOf(s: Step, more: { entered?: Record<string, string | number | null>; procedure?: ProcedurePage } = {}) {
  const w = shown(StepCard, {
    props: { procedure: more.procedure ?? page(), step: s, place: 1, entered: more.entered ?? {}, now: 1e12 },
    attachTo: document.body,
  })
  const submit = vi.fn(() => Promise.resolve({ kind: 'saved', answer: { id: 41, already: null } }))
  useOutbox().submit = submit as never
  const press = async () => {
    await w.find('form').trigger('submit')
    await flushPromises()
  }
  return { w, submit, press, body: () => (submit.mock.calls as unknown[][])[0]![1] as Record<string, unknown> }
}

describe('the card of a step', () => {
  test('what must be written is asked before anything is sent', async () => {
    const { w, submit, press } = cardOf(ports)
    await press()
    expect(submit).not.toHaveBeenCalled()
    expect(words(w)).toContain('Enter it')
    await new Promise(requestAnimationFrame)
    expect(document.activeElement, 'and has the focus').toBe(w.get('[aria-invalid="true"]').element)
  })
  test('a picture goes by itself, its place in the record is left to the server', async () => {
    const { w, press, body } = cardOf(ports)
    await w.find('input:not([type=file])').setValue('HE0, red')
    const file = w.find<HTMLInputElement>('input[type=file]')
    Object.defineProperty(file.element, 'files', { value: [new File(['x'], 'a.png', { type: 'image/png' })] })
    await file.trigger('change')
    await flushPromises()
    expect(w.find('img').attributes('src')).toBe('data:image/jpeg;base64,AAAA')
    await press()
    expect(body()).toMatchObject({
      procedureId: 3,
      step: 'ports',
      values: { 'port heater': 'HE0, red', 'photo': null },
      photos: { photo: 'AAAA' },
    })
    expect(w.emitted('ticked')![0]).toEqual(['ports', { 'port heater': 'HE0, red', 'photo': null }, 41])
  })
  test('what waits to be sent has no entry yet', async () => {
    const { w, press } = cardOf(plug)
    useOutbox().submit = vi.fn(() => Promise.resolve({ kind: 'queued' })) as never
    await press()
    expect(w.emitted('ticked')![0]![2]).toBeNull()
  })
  test('what was written before is shown where it is needed again, and only what was written', () => {
    const { w } = cardOf(plug, { entered: { 'port heater': 'HE0, red', 'photo': 'a'.repeat(64) } })
    expect(w.findAll('dt').map(d => d.text())).toEqual(['Port of the heater', 'Picture of the connectors'])
    expect(words(w)).toContain('HE0, red')
    expect(w.find('img').attributes('src')).toBe(`/api/pictures/${'a'.repeat(64)}`)
  })
  test('a tick alone proves nothing; a record does', async () => {
    const { w, submit, press } = cardOf(proof)
    await press()
    expect(submit).not.toHaveBeenCalled()
    expect(words(w)).toContain('No test since it was fitted in which the hotend runaway protection tripped')
    const leads = w.findAll('a').map(x => x.attributes('href'))
    expect(leads).toContain('/verify/certificate?printer=Aire&test=hotend%20runaway%20protection')
    const proved = cardOf(proof, { procedure: page({ proofs: { proof: 'tripped, 27 Nov, Day technician' } }) })
    expect(words(proved.w)).toContain('On record: tripped, 27 Nov, Day technician.')
    await proved.press()
    expect(proved.submit).toHaveBeenCalled()
  })
  test('without a printer that is heard, what a person reads there counts, and cold is not there', async () => {
    const { w, submit, press, body } = cardOf(heat)
    useLive().printers = {}
    await nextTick()
    await press()
    expect(submit).not.toHaveBeenCalled()
    expect(words(w)).toContain('The nozzle is not read now.')
    await w.find('input').setValue('150')
    await press()
    expect(submit).not.toHaveBeenCalled()
    await w.find('input').setValue('274')
    await press()
    expect(body()).toMatchObject({ reading: { c: 274, at: null } })
  })
  test('chosen from the list it takes the focus', () => {
    const { w } = cardOf(plug)
    ;(w.vm as unknown as { focus: () => void }).focus()
    expect(document.activeElement?.textContent).toBe('Do plug')
  })
})

describe('a picture', () => {
  test('what is none is said, and what is one can be left out again', async () => {
    const w = shown(
      defineComponent(() => {
        const picture = ref<string | null>(null)
        return () =>
          h(FieldPhoto, {
            'id': 'p',
            'label': 'Picture',
            'modelValue': picture.value,
            'onUpdate:modelValue': (x: string | null) => (picture.value = x),
          })
      }),
    )
    const file = w.find<HTMLInputElement>('input')
    const take = async (type: string) => {
      Object.defineProperty(file.element, 'files', { value: [new File(['x'], 'a', { type })], configurable: true })
      await file.trigger('change')
      await flushPromises()
    }
    await take('text/plain')
    expect(words(w)).toContain('This is no picture')
    expect(file.attributes('aria-invalid')).toBe('true')
    await take('image/jpeg')
    expect(w.find('img').exists()).toBe(true)
    await w.find('button').trigger('click')
    expect(w.find('img').exists()).toBe(false)
  })
})

test('the list of steps shows the picture that was taken, and no hash', () => {
  const sha256 = 'b'.repeat(64)
  const tick: Tick = {
    id: 1,
    step: 'ports',
    at: '2026-11-27T10:00:00Z',
    by: 'Day technician',
    values: { 'port heater': 'HE0', 'photo': sha256 },
    readC: null,
    readBy: null,
    struck: null,
  }
  const w = shown(StepList, {
    props: { steps, ticks: [tick], waiting: [], open: ['plug'], chosen: 'plug', ended: false },
  })
  const line = w.find('[data-step="ports"]')
  expect(line.text()).toContain('Port of the heater: HE0')
  expect(line.text()).not.toContain(sha256)
  expect(line.find('img').attributes('src')).toBe(`/api/pictures/${sha256}`)
  expect(line.attributes('data-done')).toBe('true')
})

describe('what is taken from the shelf', () => {
  const items = Array.from({ length: 14 }, (_, i) => ({
    id: i + 1,
    good: i === 0,
    tag: `H-${i + 1}`,
    words: 'N-1',
    says: i === 0 ? 'Good for PA6.' : 'Not ready to go.',
  }))
  test('the best first, one is picked, and how many more there are is said', async () => {
    const w = shown(PickList, { props: { name: 'x', items, modelValue: 1 } })
    expect(w.findAll('input')).toHaveLength(12)
    expect(w.find<HTMLInputElement>('input').element.checked).toBe(true)
    expect(words(w)).toContain('And 2 more on the shelf that suit less.')
    await w.findAll('input')[2]!.trigger('change')
    expect(w.emitted('update:modelValue')).toEqual([[3]])
  })
  const frame = (offer: object, more: object = {}) =>
    shown(OfferFrame, {
      props: {
        modelValue: 1,
        failure: null,
        heads: [{ value: 1, text: 'Aire, now H-04' }],
        offer: { refusal: null, under: null, coming: [], ...offer },
        lead: { mark: 'fine', text: 'Take H-08.' },
        take: 'Which hotend to take',
        none: null,
        steps: 2,
        choose: 'Choose the head.',
        ...more,
      },
      slots: { shelf: '<p>shelf</p>', how: '<p>how</p>', beside: '<p>beside</p>' },
    } as never)
  test('what is under way comes before all else, then what keeps it from being done, then what is missing', () => {
    const under = frame({ under: { id: 7 }, refusal: { where: '/x', action: 'Mend it' } })
    expect(under.find('a[href="/change/7"]').text()).toBe('Go on with it')
    expect(words(under)).not.toMatch(/shelf|beside|Mend it/)
    const refused = frame({ refusal: { where: '/x', action: 'Mend it' } })
    expect(refused.find('a[href="/x"]').text()).toBe('Mend it')
    expect(words(refused)).not.toContain('shelf')
    const none = frame({}, { none: { to: '/stores', text: 'Add one' } })
    expect(none.find('a[href="/stores"]').text()).toBe('Add one')
    const all = frame({ coming: ['PA6', 'PC'] })
    expect(words(all)).toMatch(/Comes next here: PA6, PC\..*shelf.*How it goes: 2 steps.*how/)
  })
  test('without facts there is no way to begin, without an offer it is read or a head is to be chosen', () => {
    expect(words(frame({}, { steps: 0 }))).not.toContain('How it goes')
    expect(frame({}, { offer: null, lead: null }).find('[aria-label="Reading the shelf"]').exists()).toBe(true)
    const nobody = shown(OfferFrame, {
      props: {
        modelValue: null,
        failure: null,
        heads: [],
        offer: null,
        lead: null,
        take: '',
        none: null,
        steps: 0,
        choose: 'Choose the head.',
      },
    } as never)
    expect(words(nobody)).toContain('Choose the head.')
  })
})

test('a row that moves keeps the focus that was in it', async () => {
  const state = reactive({ rows: ['a', 'b', 'c'] })
  shown(
    defineComponent(() => {
      useKeptFocus()
      return () =>
        h(
          'ul',
          state.rows.map(r => h('li', { key: r }, [h('button', { id: r }, r)])),
        )
    }),
    { attachTo: document.body },
  )
  document.querySelector<HTMLElement>('#c')!.focus()
  state.rows = ['c', 'b', 'a']
  await nextTick()
  expect(document.activeElement?.id).toBe('c')
  // what is gone gives it up
  state.rows = ['b', 'a']
  await nextTick()
  expect(document.activeElement?.id ?? '').not.toBe('c')
})
