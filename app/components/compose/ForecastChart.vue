<script setup lang="ts">
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js'
import { Bar } from 'vue-chartjs'
import { percent as percentWords } from '~~/core/kit/phrases'

/** Shares of a class by the part of the points that they get, in twentieths; what passes is darker. */
const { twentieths, passAt } = defineProps<{
  twentieths: readonly number[]
  /** Share of the points from which somebody passes; null without a pass mark. */
  passAt: number | null
}>()
Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip)

const tone = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const percent = (share: number, decimals = 0) => percentWords(Math.round(share * 1e6) / 1e6, decimals)
const range = (i: number) => `${i * 5}–${i * 5 + 5} %`
const data = computed(() => ({
  labels: twentieths.map((_, i) => range(i)),
  datasets: [
    {
      data: twentieths.map((share) => share * 100),
      backgroundColor: twentieths.map((_, i) =>
        passAt !== null && (i + 1) * 0.05 > passAt + 1e-9 ? tone('--petrol') : tone('--petrol-mid'),
      ),
      barPercentage: 1,
      categoryPercentage: 0.92,
    },
  ],
}))
const options = computed(() => ({
  animation: false as const,
  responsive: true,
  maintainAspectRatio: false,
  plugins: {
    legend: { display: false },
    tooltip: {
      callbacks: {
        label: ({ dataIndex }: { dataIndex: number }) => `${percent(twentieths[dataIndex] ?? 0)} of a class`,
      },
    },
  },
  scales: {
    x: {
      grid: { display: false },
      ticks: { color: tone('--soft'), maxRotation: 0, callback: (_: unknown, i: number) => (i % 5 ? '' : `${i * 5}`) },
    },
    y: { display: false, beginAtZero: true },
  },
}))
const words = computed(
  () =>
    `Forecast: ${twentieths
      .flatMap((share, i) => (share >= 0.005 ? [`${range(i)}: ${percent(share)}`] : []))
      .join(', ')}`,
)
const asTable = ref(false)
</script>

<template>
  <figure class="mt-1">
    <div v-if="!asTable" class="h-24">
      <Bar :data="data" :options="options" :aria-label="words" />
    </div>
    <table v-else class="w-full text-small">
      <thead>
        <tr class="border-b border-rule text-left text-soft">
          <th class="font-semibold">Score</th>
          <th class="text-right font-semibold">Share of a class</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="(share, i) in twentieths" :key="i"
          ><tr v-if="share >= 0.0005">
            <td>{{ range(i) }}</td>
            <td class="text-right">{{ percent(share, 1) }}</td>
          </tr></template
        >
      </tbody>
    </table>
    <figcaption class="flex justify-between gap-2 text-note text-soft">
      <span>percent of the points{{ passAt === null ? '' : ', dark: passed' }}</span>
      <button type="button" class="link" @click="asTable = !asTable">
        {{ asTable ? 'as a picture' : 'as a table' }}
      </button>
    </figcaption>
  </figure>
</template>
