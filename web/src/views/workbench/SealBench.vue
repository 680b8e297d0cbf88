<script setup lang="ts">
import { compressionSet, countGrooves, type Gland, glandFit } from '@uvanta/core/craft'
import { roundTo } from '@uvanta/core/quantity'
import { computed, reactive } from 'vue'
import StateMark from '@/parts/StateMark.vue'
import AttachResult from './AttachResult.vue'
import { attempt } from './attempt'

/** A ring in its gland: squeeze, stretch, fill, what years have left of it, and how many there are. */
const gland = reactive({
  inside: '34.52',
  section: '3.53',
  floor: '35',
  depth: '2.8',
  width: '4.8',
  use: 'static' as Gland['use'],
})
const fit = computed(() =>
  attempt(() =>
    glandFit({
      ring: { insideMm: Number(gland.inside), sectionMm: Number(gland.section) },
      floorMm: Number(gland.floor),
      depthMm: Number(gland.depth),
      widthMm: Number(gland.width),
      use: gland.use,
    }),
  ),
)
const set = reactive({ original: '3.53', recovered: '3.30', compressed: '2.80' })
const left = computed(() =>
  attempt(() =>
    compressionSet(Number(set.original), Number(set.compressed), Number(set.recovered)),
  ),
)
const count = reactive({ grooves: 5, emptyOnPurpose: 1, doubled: 0, rings: 4 })
const grooves = computed(() => attempt(() => countGrooves({ ...count })))
/** The section in its groove, drawn to scale in a box of 160 × 110. */
const drawn = computed(() => {
  const scale = 60 / (Number(gland.width) || 1)
  const depth = Math.min(80, (Number(gland.depth) || 0) * scale)
  const ring = (Number(gland.section) || 0) * scale
  return { width: 60, depth, ring, height: Math.min(ring, depth), flat: ring * ring }
})
</script>

<template>
  <section class="section" aria-labelledby="seal-title">
    <h2 id="seal-title">Ring in its groove</h2>
    <div class="entry">
      <label>Ring inside, mm <BFormInput v-model="gland.inside" class="mono" /></label>
      <label>Ring section, mm <BFormInput v-model="gland.section" class="mono" /></label>
      <label>Groove floor, mm <BFormInput v-model="gland.floor" class="mono" /></label>
      <label>Gland depth, mm <BFormInput v-model="gland.depth" class="mono" /></label>
      <label>Gland width, mm <BFormInput v-model="gland.width" class="mono" /></label>
      <label
        >Use
        <BFormSelect v-model="gland.use">
          <option>static</option>
          <option>moving</option>
        </BFormSelect>
      </label>
    </div>
    <p v-if="'says' in fit" class="caution" role="alert">{{ fit.says }}</p>
    <div v-else class="drawn">
      <svg viewBox="0 0 160 110" role="img" aria-label="Section of the ring in its groove">
        <path :d="`M10 20H50V${20 + drawn.depth}H110V20H150`" class="metal" />
        <path d="M10 14H150" class="metal" />
        <ellipse
          cx="80"
          :cy="14 + drawn.height / 2"
          :rx="drawn.flat / (drawn.height || 1) / 2"
          :ry="drawn.height / 2"
          class="rubber"
        />
      </svg>
      <div>
        <p>
          <span class="mono big">{{ roundTo(fit.answer.squeezePercent, 1) }} %</span> squeeze ·
          {{ roundTo(fit.answer.stretchPercent, 1) }} % stretch ·
          {{ roundTo(fit.answer.fillPercent, 0) }} % fill
        </p>
        <p v-for="q in fit.answer.says" :key="q" class="caution">{{ q }}</p>
        <AttachResult
          :result="{
            computation: 'gland-fit',
            title: 'Ring in its groove',
            says: `${gland.inside} × ${gland.section} mm: squeeze ${roundTo(fit.answer.squeezePercent, 1)} %, stretch ${roundTo(fit.answer.stretchPercent, 1)} %, fill ${roundTo(fit.answer.fillPercent, 0)} %`,
          }"
        />
      </div>
    </div>
    <h3>Compression set</h3>
    <div class="entry">
      <label>As new, mm <BFormInput v-model="set.original" class="mono" /></label>
      <label>Recovered, mm <BFormInput v-model="set.recovered" class="mono" /></label>
      <label>In the gland, mm <BFormInput v-model="set.compressed" class="mono" /></label>
    </div>
    <p v-if="'says' in left" class="caution" role="alert">{{ left.says }}</p>
    <p v-else>
      <StateMark :state="left.answer.keep ? 'pass' : 'fail'" :label="left.answer.says" />
    </p>
    <h3>Grooves</h3>
    <div class="entry">
      <label
        >Grooves <BFormInput v-model.number="count.grooves" type="number" class="mono"
      /></label>
      <label
        >Empty on purpose
        <BFormInput v-model.number="count.emptyOnPurpose" type="number" class="mono"
      /></label>
      <label
        >With a slide ring over
        <BFormInput v-model.number="count.doubled" type="number" class="mono"
      /></label>
      <label
        >Rings at hand <BFormInput v-model.number="count.rings" type="number" class="mono"
      /></label>
    </div>
    <p v-if="'says' in grooves" class="caution" role="alert">{{ grooves.says }}</p>
    <p v-else>
      <StateMark :state="grooves.answer.fits ? 'pass' : 'fail'" :label="grooves.answer.says" />
    </p>
  </section>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8.5rem, 1fr));
  gap: 0.6rem;
  margin-bottom: 0.75rem;
  align-items: end;
}

label {
  font-weight: 600;
}

h3 {
  font-size: 1rem;
  margin-top: 1rem;
}

.drawn {
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr);
  gap: 1rem;
  align-items: center;
}

.metal {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.6;
}

.rubber {
  fill: var(--paper-sunk);
  stroke: var(--ink);
  stroke-width: 2;
}

.big {
  font-size: 2rem;
  font-weight: 600;
}

p {
  margin-bottom: 0.3rem;
}
</style>
