import type { Vocabulary } from '../core/question/vocabulary'

/** The school's tree of objectives: code, title; the tree follows from the codes. */
export const objectives: [string, string][] = [
  ['1', 'Tides and tidal heights'],
  ['1.1', 'Levels and datums'],
  ['1.2', 'Springs and neaps'],
  ['1.3', 'Heights between high and low water'],
  ['2', 'Chartwork'],
  ['2.1', 'Positions and symbols'],
  ['2.2', 'Compass and bearings'],
  ['2.3', 'Speed, time and distance'],
  ['3', 'Collision regulations'],
  ['3.1', 'Steering and sailing rules'],
  ['3.2', 'Lights and shapes'],
  ['3.3', 'Sound signals'],
  ['4', 'Buoyage'],
  ['4.1', 'Lateral marks'],
  ['4.2', 'Cardinal marks'],
  ['4.3', 'Other marks'],
  ['5', 'Weather'],
  ['5.1', 'Systems and fronts'],
  ['5.2', 'Forecasts and wind'],
  ['6', 'Pilotage and passage planning'],
  ['7', 'Safety'],
]

export const objectiveId = (code: string) => `obj-${code.replaceAll('.', '-')}`

/** How the demo school describes its questions. */
export const demoVocabulary: Vocabulary = {
  schemes: [
    {
      id: 'taxonomy',
      name: 'Taxonomy',
      levels: [
        ['v1', 'remember'],
        ['v2', 'understand'],
        ['v3', 'apply'],
        ['v4', 'analyse'],
        ['v5', 'evaluate'],
        ['v6', 'create'],
      ].map(([id, name]) => ({ id: id!, name: name! })),
    },
    {
      id: 'depth',
      name: 'Cognitive depth',
      levels: [
        ['v1', 'recall'],
        ['v2', 'skill and concept'],
        ['v3', 'strategic thinking'],
        ['v4', 'extended thinking'],
      ].map(([id, name]) => ({ id: id!, name: name! })),
    },
  ],
  fields: [
    { id: 'course', name: 'Course', values: ['inshore', 'coastal', 'offshore'] },
    { id: 'chart', name: 'Chart needed', values: [] },
  ],
  grades: ['first evening class', 'second evening class'],
}

/** Objectives without which nobody passes, and those that come before others. */
export const essential = ['3.1', '7']
export const needs: [objective: string, first: string][] = [
  ['1.3', '1.1'],
  ['1.3', '1.2'],
  ['6', '1.3'],
  ['6', '2.3'],
]
