import type { Component } from 'vue'
import type { KindName } from '~~/core/question'
import ByHandEditor from './ByHandEditor.vue'
import ChoosingEditor from './ChoosingEditor.vue'
import GapsEditor from './GapsEditor.vue'
import GridEditor from './GridEditor.vue'
import NumberEditor from './NumberEditor.vue'
import OrderingEditor from './OrderingEditor.vue'
import PairsEditor from './PairsEditor.vue'
import SpotEditor from './SpotEditor.vue'
import TextEditor from './TextEditor.vue'

/** The editor of each kind's body. Each gets the body and the kind, and says `update:body` with what changes of it. */
export const editors: Record<KindName, Component> = {
  choice: ChoosingEditor,
  choices: ChoosingEditor,
  trueFalse: ChoosingEditor,
  yesNo: ChoosingEditor,
  number: NumberEditor,
  text: TextEditor,
  gaps: GapsEditor,
  matching: PairsEditor,
  sorting: PairsEditor,
  grid: GridEditor,
  ordering: OrderingEditor,
  spot: SpotEditor,
  written: ByHandEditor,
  short: ByHandEditor,
  recording: ByHandEditor,
}
