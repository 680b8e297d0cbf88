<script setup lang="ts">
import { buildsOf } from '@uvanta/core/machine'
import { computed, onMounted, ref } from 'vue'
import { useTitle } from '@/composables/useTitle'
import { dateWords } from '@/composables/words'
import EmptySheet from '@/parts/EmptySheet.vue'
import MachineParts from '@/parts/machine/MachineParts.vue'
import TitleBlock from '@/parts/TitleBlock.vue'
import WaitingLine from '@/parts/WaitingLine.vue'
import { useLibrary } from '@/stores/library'

/** A machine as it is physically there: drawn, its parts, joints, spaces, what hurts, and where practitioners differ. */
const props = defineProps<{ id: string }>()
const library = useLibrary()
onMounted(() => void library.load())

const machine = computed(() => library.library?.machines.find((m) => m.id === props.id))
useTitle(() => machine.value?.title)
const builds = computed(() => (machine.value ? buildsOf(machine.value) : []))
const build = ref(0)
const options = computed(() => builds.value[build.value] ?? [])
const buildWords = (names: readonly string[]) =>
  names.map((n) => machine.value?.options?.find((o) => o.id === n)?.title ?? n).join(', ')
const guides = computed(() => (library.library?.guides ?? []).filter((g) => g.machine === props.id))
const titleOf = (id: string) => machine.value?.parts.find((p) => p.id === id)?.title ?? id
const differ = computed(() => machine.value?.differ ?? [])
</script>

<template>
  <div>
    <WaitingLine v-if="!library.library" what="the machine" />
    <EmptySheet v-else-if="!machine" title="There is no such machine"
      ><RouterLink :to="{ name: 'library' }">Back to the library</RouterLink></EmptySheet
    >
    <template v-else>
      <TitleBlock
        :title="machine.title"
        :subtitle="machine.also ? `Also ${machine.also.join(', ')}` : 'Machine'"
        :cells="[
          { label: 'Version', value: `${machine.version} of ${dateWords(machine.date)}` },
          { label: 'Parts', value: String(machine.parts.length), mono: true },
          { label: 'Guides', value: guides.map((g) => g.title).join(', ') || 'none yet', span: 2 },
        ]"
      />
      <p class="does">{{ machine.does }}</p>
      <p v-if="guides.length > 0">
        Serviced by
        <template v-for="(g, n) in guides" :key="g.id"
          ><template v-if="n > 0">, </template
          ><RouterLink :to="{ name: 'guide', params: { id: g.id } }">{{
            g.title
          }}</RouterLink></template
        >.
      </p>
      <div v-if="builds.length > 1" class="build no-print">
        <label class="form-label" for="build">Build</label>
        <BFormSelect id="build" v-model="build">
          <option v-for="(b, n) in builds" :key="n" :value="n">{{ buildWords(b) }}</option>
        </BFormSelect>
      </div>
      <section class="section">
        <h2>Drawing</h2>
        <MachineParts :key="`${machine.id} ${build}`" :machine="machine" :options="options" />
      </section>
      <section v-if="machine.energy" class="section">
        <h2>What is held back in it</h2>
        <dl>
          <template v-for="e in machine.energy" :key="e.what">
            <dt>{{ e.what }}</dt>
            <dd>Held by {{ e.heldBy }}. {{ e.letOut }}</dd>
          </template>
        </dl>
      </section>
      <section v-if="machine.spaces" class="section">
        <h2>Spaces under pressure</h2>
        <div class="scroll-x">
          <table class="table">
            <thead>
              <tr>
                <th>Space</th>
                <th>Fed by</th>
                <th>Shut by</th>
                <th>Vented by</th>
                <th>Proved by</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="s in machine.spaces" :key="s.id">
                <td>{{ s.title }}</td>
                <td>{{ s.fedBy }}</td>
                <td>{{ s.shutBy }}</td>
                <td>{{ s.ventedBy }}</td>
                <td>{{ s.provedBy }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section v-if="machine.symptoms" class="section">
        <h2>What it shows</h2>
        <dl>
          <template v-for="s in machine.symptoms" :key="s.sign">
            <dt>{{ s.sign }}</dt>
            <dd>{{ s.look.map(titleOf).join(', ') }}. {{ s.first }}</dd>
          </template>
        </dl>
      </section>
      <section v-if="differ.length > 0" class="section">
        <h2>Where practitioners differ</h2>
        <dl>
          <template v-for="d in differ" :key="d.point">
            <dt>{{ d.point }}</dt>
            <dd>
              {{ d.house }}<span v-if="d.others" class="soft"> Others: {{ d.others }}</span>
            </dd>
          </template>
        </dl>
      </section>
      <div class="lists">
        <section v-if="machine.kits" class="section">
          <h2>Kits</h2>
          <ul>
            <li v-for="k in machine.kits" :key="k.id">
              {{ k.title }}: {{ k.parts.map(titleOf).join(', ') }}
            </li>
          </ul>
        </section>
        <section v-if="machine.tools" class="section">
          <h2>Tools</h2>
          <ul>
            <li v-for="t in machine.tools" :key="t.title">
              {{ t.title }}<span v-if="t.instead" class="soft">, or {{ t.instead }}</span>
            </li>
          </ul>
        </section>
        <section v-if="machine.consumables" class="section">
          <h2>Lubricants and consumables</h2>
          <ul>
            <li v-for="c in machine.consumables" :key="c.title">
              {{ c.title }}<template v-if="c.where">: {{ c.where }}</template
              ><template v-if="c.never">; never {{ c.never }}</template>
            </li>
          </ul>
        </section>
      </div>
      <p v-for="g in machine.gaps" :key="g" class="caution">{{ g }}</p>
      <p class="soft">{{ machine.source }}</p>
    </template>
  </div>
</template>

<style scoped>
.does {
  max-width: 70ch;
  margin-top: 1rem;
}

.build {
  max-width: 24rem;
}

dl {
  display: grid;
  grid-template-columns: minmax(10rem, 18rem) 1fr;
  gap: 0.4rem 1.5rem;
  margin: 0;
}

dt {
  font-weight: 600;
}

dd {
  margin: 0;
  max-width: 60ch;
}

.lists {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
  gap: 0 2rem;
}

@media (max-width: 43.75em) {
  dl {
    grid-template-columns: 1fr;
  }

  dd {
    margin-bottom: 0.5rem;
  }
}
</style>
