import type { Question } from '../core/question'

/** Folders of the demo bank, by the first figure of the main objective. */
export const folders: [id: string, name: string][] = [
  ['f-tides', 'Tides'],
  ['f-chart', 'Chartwork'],
  ['f-rules', 'Rules of the road'],
  ['f-buoys', 'Buoyage'],
  ['f-weather', 'Weather'],
  ['f-passage', 'Passage planning'],
  ['f-safety', 'Safety'],
]

export const folderFor = (question: Question): string | null =>
  folders[Number(/^obj-(\d)/.exec(question.objectives[0] ?? '')?.[1] ?? 0) - 1]?.[0] ?? null
