<script setup lang="ts">
/** Body, seat, diaphragm casing and what loads it: a spring, a pilot beside it, or air in a dome. */
defineProps<{ x: number; y: number; kind: string }>()
</script>

<template>
  <g :transform="`translate(${x} ${y})`">
    <path class="body" d="M-44 -17C-30 -34 30 -34 44 -17V17C30 34 -30 34 -44 17z" />
    <path class="line" d="M-44 4H-12V-6H12M12 4H44M-16 -6H16" />
    <path class="disc" d="M-16 -9H16" />
    <path class="line" d="M0 -9V-66" />
    <path class="body" d="M-48 -66C-48 -80 48 -80 48 -66V-58H-48z" />
    <path class="diaphragm" d="M-46 -66H46" />
    <template v-if="kind === 'pilot regulator'">
      <path class="body" d="M-16 -76V-96H16V-76" />
      <path class="body" d="M-96 -108h44v30h-44zM-86 -108v-22h24v22" />
      <path class="spring" d="M-84 -128l20 5l-20 5l20 5l-20 5" />
      <path class="thin" d="M-52 -92H-16M-74 -78V-17" />
    </template>
    <template v-else-if="kind === 'dome regulator'">
      <path class="body" d="M-46 -70C-46 -126 46 -126 46 -70" />
      <path class="thin" d="M0 -112v-20m-14 0h28" />
    </template>
    <template v-else>
      <path class="body" d="M-22 -74V-126H22V-74" />
      <path class="spring" d="M-14 -120l28 7l-28 7l28 7l-28 7l28 7l-28 7" />
      <path class="line" d="M0 -126V-140M-9 -140H9" />
    </template>
  </g>
</template>

<style scoped>
.body {
  fill: var(--paper-raised);
  stroke: var(--ink);
  stroke-width: 2.6;
}

.line,
.thin,
.spring {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}

.thin {
  stroke-width: 1.6;
}

.spring {
  stroke: var(--blue);
  stroke-width: 2;
}

.disc,
.diaphragm {
  fill: none;
  stroke: var(--flow);
  stroke-width: 5;
}

.diaphragm {
  stroke-width: 3;
}
</style>
