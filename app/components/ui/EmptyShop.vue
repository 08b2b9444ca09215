<template>
  <div class="sheet max-w-[640px] p-5">
    <h2>This shop has no printer yet</h2>
    <p class="my-2">
      The Floor leads through the first hour: name and time zone, printers, nozzles and spools, then the first question.
      After that, runs and gauges can be logged.
    </p>
    <p class="flex flex-wrap items-center gap-3">
      <NuxtLink to="/" class="button first">Begin on the Floor</NuxtLink
      ><NuxtLink to="/equip/stack/new" class="act">Add the first printer</NuxtLink>
    </p>
  </div>
</template>
