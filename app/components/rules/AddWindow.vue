<script setup lang="ts">
import { fromLocal, toLocal } from '~~/core/kit/local-time'
import { day, plus } from '~~/core/kit/time'
import { addTo } from '~~/core/quiz/edits'
import { blankWindow } from '~~/core/rules/windows'

/** A new window: tomorrow evening, for the first class that has none. */
const store = useQuiz()
const session = useSession()
function add() {
  const { windows } = store.quiz!.rules
  const taken = new Set(windows.flatMap((window) => window.classes))
  const free = store.view!.classes.find((each) => !taken.has(each.id)) ?? store.view!.classes[0]
  if (!free) {
    store.say('There is no class yet to give a window to.')
    return
  }
  const tomorrow = toLocal(plus(serverTime(), day), session.zone).slice(0, 10)
  const at = (time: string) => fromLocal(`${tomorrow}T${time}`, session.zone)
  store.make(
    addTo(['rules', 'windows'], windows.at(-1)?.id ?? null, [
      blankWindow({ id: newRowId(), classes: [free.id], opens: at('19:00'), closes: at('21:00') }),
    ]),
  )
}
</script>

<template>
  <button id="windows" class="btn font-sans" @click="add">Add a window</button>
</template>
