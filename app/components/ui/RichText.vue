<script setup lang="ts">
import {
  Bold,
  ImagePlus,
  Italic,
  Link2,
  List,
  ListOrdered,
  Mic,
  Sigma,
  Subscript as SubIcon,
  Superscript as SupIcon,
  Table as TableIcon,
} from '@lucide/vue'
import { EditorContent, useEditor, type ChainedCommands } from '@tiptap/vue-3'
import 'katex/dist/katex.min.css'
import { extensions } from './rich-text/extensions'
import LinkDialog from './rich-text/LinkDialog.vue'
import MathsDialog from './rich-text/MathsDialog.vue'
import MediaDialog, { type KeptMedia } from './rich-text/MediaDialog.vue'
import { putIn } from './rich-text/put-in'

/** Rich text with maths, pictures and tables. `slim` is one line high, for options. */
const {
  modelValue,
  label,
  slim = false,
  aside = false,
  gaps = false,
  language,
  autofocus = false,
} = defineProps<{
  modelValue: string
  label: string
  slim?: boolean
  /** Said beside something else: smaller. */
  aside?: boolean
  /** Words can be made gaps. */
  gaps?: boolean
  /** For the browser's spelling check; without it that of the question around it. */
  language?: string
  autofocus?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [string] }>()
const around = inject(questionLanguage, null)

const maths = ref<{ tex: string; pos: number | null } | null>(null)
const media = shallowRef<File | null>(null)
const problem = ref('')
const recording = ref(false)
const address = ref<string | null>(null)
const open = ref(false)
const chooser = useTemplateRef<HTMLInputElement>('chooser')

const editor = useEditor({
  // Its few lines of style stand in main.css: the content security policy takes no style elements.
  injectCSS: false,
  autofocus: autofocus ? 'end' : false,
  content: modelValue,
  extensions: extensions(gaps, (tex, pos) => {
    maths.value = { tex, pos }
  }),
  editorProps: {
    attributes: () => {
      const lang = language ?? around?.value
      return {
        class: `written outline-none ${slim ? 'min-h-7' : 'min-h-24'}`,
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-label': label,
        spellcheck: 'true',
        ...(lang ? { lang } : {}),
      }
    },
  },
  onUpdate: ({ editor: current }) => emit('update:modelValue', current.isEmpty ? '' : current.getHTML()),
})
watch(
  () => modelValue,
  (value) => {
    if (editor.value && value !== editor.value.getHTML() && !(value === '' && editor.value.isEmpty))
      editor.value.commands.setContent(value, { emitUpdate: false })
  },
)
const run = (command: (chain: ChainedCommands) => ChainedCommands) => () =>
  void (editor.value && command(editor.value.chain().focus()).run())

function keepMaths(tex: string) {
  const pos = maths.value!.pos
  maths.value = null
  if (pos !== null && !tex) run((chain) => chain.setNodeSelection(pos).deleteSelection())()
  else if (pos !== null) run((chain) => chain.setNodeSelection(pos).updateInlineMath({ latex: tex }))()
  else if (tex) run((chain) => chain.insertInlineMath({ latex: tex }))()
}

function putLink(text: string, attrs: { href: string; download?: string }) {
  putIn(editor.value!, [
    { type: 'text', text, marks: [{ type: 'link', attrs }] },
    { type: 'text', text: ' ' },
  ])
}

/** Makes the chosen words a link; where none are chosen the address itself is put in. */
function keepLink(href: string) {
  address.value = null
  const isBetween = editor.value!.state.selection.empty && !editor.value!.isActive('link')
  if (!href) run((chain) => chain.extendMarkRange('link').unsetLink())()
  else if (!isBetween) run((chain) => chain.extendMarkRange('link').setLink({ href }))()
  else putLink(href, { href })
}

function chosen(event: Event) {
  const field = event.target as HTMLInputElement
  media.value = field.files?.[0] ?? null
  field.value = ''
}
function takeRecording(sound: File) {
  recording.value = false
  media.value = sound
}
function keepMedia({ src, kind, words, plays }: KeptMedia) {
  media.value = null
  if (kind === 'picture') putIn(editor.value!, [{ type: 'image', attrs: { src, alt: words } }])
  else if (kind === 'document') putLink(words, { href: src, download: `${words}.pdf` })
  else {
    const attrs = { src, 'aria-label': words, 'data-plays': plays || null }
    putIn(editor.value!, [{ type: kind === 'sound' ? 'audio' : 'video', attrs }])
  }
}

/** Makes the marked words a gap, or a gap words again. */
function toggleGap() {
  const current = editor.value
  if (!current) return
  problem.value = ''
  if (current.isActive('gap')) run((chain) => chain.extendMarkRange('gap').unsetMark('gap'))()
  else if (current.state.selection.empty) problem.value = 'Mark the word first that is to be a gap.'
  else {
    const used = new Set([...current.getHTML().matchAll(/data-gap="([^"]*)"/g)].map((mark) => mark[1]))
    const gap = Array.from({ length: 60 }, (_, i) => `g${i + 1}`).find((each) => !used.has(each))!
    run((chain) => chain.setMark('gap', { gap }))()
  }
}

/** A tool of the toolbar; `mark` names what is on where the cursor stands. */
interface Tool {
  name: string
  icon: typeof Bold
  mark?: string
  do: () => void
}
const wordTools: Tool[] = [
  { name: 'Bold', icon: Bold, mark: 'bold', do: run((chain) => chain.toggleBold()) },
  { name: 'Italic', icon: Italic, mark: 'italic', do: run((chain) => chain.toggleItalic()) },
  { name: 'Lowered', icon: SubIcon, mark: 'sub', do: run((chain) => chain.toggleMark('sub')) },
  { name: 'Raised', icon: SupIcon, mark: 'sup', do: run((chain) => chain.toggleMark('sup')) },
  { name: 'Maths', icon: Sigma, do: () => (maths.value = { tex: '', pos: null }) },
  {
    name: 'Link',
    icon: Link2,
    mark: 'link',
    do: () => (address.value = String(editor.value?.getAttributes('link').href ?? '')),
  },
  { name: 'Picture, sound, film or PDF', icon: ImagePlus, do: () => chooser.value?.click() },
  { name: 'Record sound or film', icon: Mic, do: () => (recording.value = true) },
]
const blockTools: Tool[] = [
  { name: 'List', icon: List, mark: 'bulletList', do: run((chain) => chain.toggleBulletList()) },
  { name: 'Numbered list', icon: ListOrdered, mark: 'orderedList', do: run((chain) => chain.toggleOrderedList()) },
  {
    name: 'Table',
    icon: TableIcon,
    mark: 'table',
    do: run((chain) => chain.insertTable({ rows: 2, cols: 3, withHeaderRow: false })),
  },
]
/** Above a field of one line: it takes no room, so that nothing moves away under a click when it goes. */
const floating = 'absolute -left-px bottom-full z-10 w-max max-w-[85vw] rounded-t border bg-sheet shadow'
const tools = slim ? wordTools : [...wordTools, ...blockTools]
const isOn = (tool: Tool) => Boolean(tool.mark && editor.value?.isActive(tool.mark))

/** Of the chosen picture, in pixels. */
const width = computed(() =>
  editor.value?.isActive('image') ? Math.round(Number(editor.value.getAttributes('image').width)) || null : undefined,
)
function setWidth(event: Event) {
  const wanted = Number((event.target as HTMLInputElement).value)
  const size = { width: wanted >= 40 ? Math.min(1600, Math.round(wanted)) : null, height: null }
  editor.value?.chain().updateAttributes('image', size).run()
}
</script>

<template>
  <div
    class="relative rounded border border-rule"
    :class="aside ? 'bg-transparent' : 'border-b-2 border-b-petrol bg-sheet'"
    @focusin="open = true"
    @focusout="open = ($event.currentTarget as HTMLElement).contains($event.relatedTarget as Node | null)"
  >
    <div
      v-show="!slim || open"
      class="flex flex-wrap gap-0.5 border-rule px-1.5 py-1"
      :class="slim ? floating : 'border-b'"
      role="toolbar"
      :aria-label="`Tools for ${label}`"
    >
      <button
        v-for="tool in tools"
        :key="tool.name"
        type="button"
        class="grid size-7 place-items-center rounded hover:bg-petrol-tint"
        :class="isOn(tool) && 'bg-petrol-tint text-petrol'"
        :aria-pressed="isOn(tool) || undefined"
        :aria-label="tool.name"
        :title="tool.name"
        @click="tool.do()"
      >
        <component :is="tool.icon" :size="16" aria-hidden="true" />
      </button>
      <button
        v-if="gaps"
        type="button"
        class="btn ml-1 h-7 px-2 py-0 text-small"
        :aria-pressed="editor?.isActive('gap') || undefined"
        :class="editor?.isActive('gap') && 'border-bloom! text-bloom!'"
        @click="toggleGap"
      >
        {{ editor?.isActive('gap') ? 'No gap' : 'Gap' }}
      </button>
      <label v-if="width !== undefined" class="ml-1 flex items-center gap-1 text-note text-soft"
        >width<input
          type="number"
          min="40"
          max="1600"
          class="field h-7 w-20! px-1.5 py-0"
          :value="width ?? ''"
          placeholder="own"
          @change="setWidth"
      /></label>
      <input
        ref="chooser"
        type="file"
        accept="image/png,image/jpeg,image/gif,image/webp,audio/*,video/mp4,video/webm,application/pdf"
        class="hidden"
        @change="chosen"
      />
    </div>
    <p v-if="problem" role="alert" class="note-look text-label">{{ problem }}</p>
    <EditorContent :editor="editor" :class="aside ? 'px-3 py-1 text-label' : 'px-3 py-2 text-lg'" />
    <MathsDialog :tex="maths?.tex ?? null" @close="maths = null" @keep="keepMaths" />
    <LinkDialog :address="address" @close="address = null" @keep="keepLink" />
    <RecordDialog :open="recording" @close="recording = false" @take="takeRecording" />
    <MediaDialog :file="media" @close="media = null" @keep="keepMedia" />
  </div>
</template>
