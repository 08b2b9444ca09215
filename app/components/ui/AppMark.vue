<template>
  <svg width="26" height="30" viewBox="0 0 26 30" aria-hidden="true">
    <path d="M2 2H24V14L16 24V28H10V24L2 14Z" fill="none" stroke="var(--color-ink)" stroke-width="2.4" />
    <path d="M13 2V28" stroke="var(--color-bronze)" stroke-width="2.6" />
  </svg>
</template>
