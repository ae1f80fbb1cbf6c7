import type { Component } from 'vue'
import type { Control } from '~~/core/rules'
import ChoiceControl from './ChoiceControl.vue'
import LanguagesControl from './LanguagesControl.vue'
import InstantControl from './InstantControl.vue'
import NumberControl from './NumberControl.vue'
import PeopleControl from './PeopleControl.vue'
import TextControl from './TextControl.vue'

/** One control a sort. Each gets the slot, and says `set` with what is kept, or `edit` with an edit of its own. */
export const controls: Record<Control['sort'], Component> = {
  minutes: NumberControl,
  number: NumberControl,
  choice: ChoiceControl,
  instant: InstantControl,
  people: PeopleControl,
  languages: LanguagesControl,
  text: TextControl,
}
