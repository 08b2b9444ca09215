import { expect, test } from 'vitest'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { shown, words } from './support'

test('a time is typed and shown on the shop’s clock', async () => {
  const props = { id: 'at', label: 'Ended', modelValue: '2026-07-01T11:00:00.000Z' }
  const w = shown(FieldWhen, { props }, 'Europe/London')
  const input = w.get('input')
  expect(input.element.value).toBe('2026-07-01T12:00')
  await input.setValue('2026-07-01T13:30')
  await input.trigger('change')
  expect(w.emitted('update:modelValue')!.at(-1)).toEqual(['2026-07-01T12:30:00.000Z'])
})
test('an error stands at its field and is said with it', () => {
  const w = shown(FieldWhen, { props: { id: 'at', label: 'Ended', modelValue: '', error: 'Enter a date and time' } })
  expect(w.get('input').attributes()).toMatchObject({ 'aria-invalid': 'true', 'aria-describedby': 'at-say' })
  expect(w.get('#at-say').text()).toBe('Enter a date and time')
})
test.each([
  ['0,41', 0.41],
  ['0.41', 0.41],
  ['', null],
])('a number typed as “%s”', async (typed, value) => {
  const w = shown(FieldNumber, { props: { id: 'go', label: 'Goes', unit: 'mm', modelValue: 1 } })
  expect(w.get('label').text()).toContain('Goes')
  await w.get('input').setValue(typed)
  expect(w.emitted('update:modelValue')!.at(-1)).toEqual([value])
})
test('what is no number is kept as typed and refused later, not dropped', async () => {
  const w = shown(FieldNumber, { props: { id: 'go', label: 'Goes', unit: 'mm', modelValue: 1 } })
  await w.get('input').setValue('abc')
  expect(w.emitted('update:modelValue')!.at(-1)![0]).toBeNaN()
  expect(w.get('input').element.value).toBe('abc')
})

const question = {
  type: 'urn:iron-nozzle:question' as const,
  status: 409,
  title: 'It holds less',
  questions: [
    { code: 'over-spool:1', field: 'tools.0.amount', message: '312 g is more than the 64 g left on S-1.' },
    {
      code: 'unexpected-bore',
      field: 'goMm',
      message: 'What does it mean?',
      choices: [
        { code: 'unexpected-bore:as-read', label: 'It is as read: keep it' },
        { code: 'unexpected-bore:again', label: 'Gauge it again', local: true },
      ],
    },
  ],
}
test('questions are answered together, and not before each has its answer', async () => {
  const w = shown(QuestionBox, { props: { problem: question } })
  expect(w.attributes('role')).toBe('alert')
  const go = w.get('button')
  expect(go.attributes('disabled')).toBeDefined()
  await w.findAll('input[type=radio]')[0]!.setValue(true)
  await go.trigger('click')
  expect(w.emitted('confirm')).toEqual([[['over-spool:1', 'unexpected-bore:as-read']]])
})
test('an answer that changes the entry goes to the form', async () => {
  const w = shown(QuestionBox, { props: { problem: question } })
  await w.findAll('input[type=radio]')[1]!.setValue(true)
  await w.get('button').trigger('click')
  expect(w.emitted('local')).toEqual([['unexpected-bore:again']])
  expect(w.emitted('confirm')).toBeUndefined()
})
test('a refusal that belongs to fields is shown there, not here', () => {
  const problem = { ...question, questions: undefined, errors: [{ field: 'goMm', message: 'x' }] }
  expect(words(shown(QuestionBox, { props: { problem } }))).toBe('')
})
