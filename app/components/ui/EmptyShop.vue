<template>
  <div class="sheet max-w-[640px] p-5">
    <h2>This shop has no printer yet</h2>
    <p class="my-2">Enter the first printer with its limits in Stores, then a nozzle type and a nozzle, and fit it. After that, runs and gauges can be logged.</p>
    <NuxtLink to="/stores?add=printer" class="button first">Add the first printer</NuxtLink>
  </div>
</template>
