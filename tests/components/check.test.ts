/** The lines of a check as a person who works by keys has them. */
import { flushPromises } from '@vue/test-utils'
import { expect, test } from 'vitest'
import { defineComponent, h, reactive } from 'vue'
import type { Answer, CheckLine } from '#core/precheck'
import CheckLines from '~/components/prepare/CheckLines.vue'
import { shown } from './support'

const line = (more: Partial<CheckLine>): CheckLine => ({
  key: 'flow',
  status: 'look',
  says: 'fast',
  fix: '',
  where: null,
  waivable: true,
  reasons: ['a trial piece'],
  ...more,
})
const LINES = [
  line({}),
  line({ key: 'level', status: 'confirm', says: 'Z and level' }),
  line({ key: 'limits', status: 'stop', says: 'the liner stops', waivable: false }),
]

function check() {
  const state = reactive({ answers: [] as Answer[] })
  const answer = (index: number, how: 'looked' | 'waived' | null, reason: string) => {
    state.answers = [...state.answers.filter(a => a.index !== index), ...(how ? [{ index, how, reason }] : [])]
  }
  const w = shown(
    defineComponent(() => () => h(CheckLines, { lines: LINES, answers: state.answers, onAnswer: answer })),
    { attachTo: document.body },
  )
  const press = async (says: string, i: number) => {
    const buttons = w.findAll('li').at(i)!.findAll('button')
    const b = buttons.find(x => x.text().startsWith(says))!
    await b.trigger('click')
    await flushPromises()
  }
  return { w, state, press }
}

test('an answer leaves the focus at its line: on the reason, or on what takes it back', async () => {
  const { w, state, press } = check()
  await press('Waive', 0)
  expect(document.activeElement?.tagName).toBe('INPUT')
  await press('a trial piece', 0)
  expect(document.activeElement?.tagName).toBe('INPUT')
  expect(state.answers).toEqual([{ index: 0, how: 'waived', reason: 'a trial piece' }])
  await press('Looked at', 1)
  expect(document.activeElement?.textContent).toContain('Open again')
  await press('Open again', 1)
  expect(document.activeElement?.textContent).toContain('Looked at')
  expect(state.answers).toHaveLength(1)
  w.unmount()
})
test('a waived line is no tick, and what is never waived has no button for it', async () => {
  const { w, press } = check()
  await press('Waive', 0)
  const [waived, , never] = w.findAll('li')
  expect(waived!.attributes('data-status')).toBe('look')
  expect(never!.text()).toContain('This is never waived')
  expect(never!.findAll('button')).toHaveLength(0)
  w.unmount()
})
