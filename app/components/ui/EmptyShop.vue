<template>
  <div class="sheet max-w-[640px] p-5">
    <h2>This shop has no printer yet</h2>
    <p class="my-2">
      Describe the first printer from a starting stack, then a nozzle type and a nozzle, and fit it. After that, runs
      and gauges can be logged.
    </p>
    <NuxtLink to="/equip/stack/new" class="button first">Add the first printer</NuxtLink>
  </div>
</template>
