import type { Editor, JSONContent } from '@tiptap/core'
import { TextSelection } from '@tiptap/pm/state'

/**
 * Puts something in behind what is chosen, and the cursor behind that: within the words, or on a line of its own in the
 * same place (the cell of a table). What is chosen stays: a picture that was just put in would be chosen, and be replaced
 * by the next one, or by the next letter that is typed.
 */
export function putIn(editor: Editor, content: JSONContent[]): void {
  editor
    .chain()
    .focus()
    .insertContentAt(editor.state.selection.to, content)
    .command(({ tr, state }) => {
      const { $to, to } = tr.selection
      const isInWords = $to.parent.inlineContent
      if (!isInWords && !$to.nodeAfter?.isTextblock) tr.insert(to, state.schema.nodes.paragraph!.create())
      tr.setSelection(TextSelection.create(tr.doc, isInWords ? to : to + 1))
      return true
    })
    .run()
}
