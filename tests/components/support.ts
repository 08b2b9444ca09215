/** Mounts a component as the app does: with Pinia, and links that need no router. */
import { mount, type ComponentMountingOptions } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { Component } from 'vue'
import { checks } from '~/lib/checks'
import { useShop } from '~/state/shop'

// as a page that stood for some seconds: what its forms are checked by is there
await checks()

export function shown(component: Component, options: ComponentMountingOptions<unknown> = {}, timeZone = 'UTC') {
  const pinia = createPinia()
  setActivePinia(pinia)
  useShop().data = { settings: { timeZone }, printers: [{ heads: [] }] } as never
  const NuxtLink = { props: ['to'], template: '<a :href="to"><slot /></a>' }
  return mount(component as never, { ...options, global: { plugins: [pinia], stubs: { NuxtLink } } } as never)
}
/** What a person reads, white space as one space. */
export const words = (w: { text: () => string }) => w.text().replace(/\s+/g, ' ').trim()
