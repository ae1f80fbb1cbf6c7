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
import Image from '@tiptap/extension-image'
import { InlineMath } from '@tiptap/extension-mathematics'
import { TableKit } from '@tiptap/extension-table'
import StarterKit from '@tiptap/starter-kit'
import { EditorContent, Mark, Node as Block, useEditor } from '@tiptap/vue-3'
import 'katex/dist/katex.min.css'

/** Rich text with maths, pictures and tables. `slim` is one line high, for options. */
const {
  modelValue,
  label,
  slim = false,
  gaps = false,
  language = '',
} = defineProps<{
  modelValue: string
  label: string
  slim?: boolean
  /** Words can be made gaps. */ gaps?: boolean
  /** For the browser's spelling check. */ language?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [string] }>()

const Sub = Mark.create({ name: 'sub', parseHTML: () => [{ tag: 'sub' }], renderHTML: () => ['sub', 0] })
const Sup = Mark.create({ name: 'sup', parseHTML: () => [{ tag: 'sup' }], renderHTML: () => ['sup', 0] })
/** Sized by dragging its corner, or by the field in the tools while it is chosen. */
const Picture = Image.extend({
  addAttributes() {
    return { src: {}, alt: { default: '' }, width: { default: null }, height: { default: null } }
  },
}).configure({
  resize: { enabled: true, directions: ['bottom-right'], minWidth: 40, minHeight: 24, alwaysPreserveAspectRatio: true },
})
/** A marked word of a text with gaps. */
const Gap = Mark.create({
  name: 'gap',
  inclusive: false,
  excludes: '_',
  addAttributes: () => ({
    gap: {
      parseHTML: (element) => element.getAttribute('data-gap'),
      renderHTML: ({ gap }) => ({ 'data-gap': gap as string }),
    },
  }),
  parseHTML: () => [{ tag: 'span[data-gap]' }],
  renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes, 0],
})
/** Sound and film are one block each, as they were put in. */
const Media = (name: 'audio' | 'video') =>
  Block.create({
    name,
    group: 'block',
    atom: true,
    addAttributes: () => ({
      src: {},
      'aria-label': { default: '' },
      'data-plays': { default: null },
      ...(name === 'video' ? { width: { default: null } } : {}),
    }),
    parseHTML: () => [{ tag: name }],
    renderHTML: ({ HTMLAttributes }) => [name, { ...HTMLAttributes, controls: '' }],
  })
const maths = ref<{ tex: string; pos: number | null } | null>(null)
const picture = ref<{ file: File; alt: string; plays: number } | null>(null)
const problem = ref('')
const recording = ref(false)
const address = ref<string | null>(null)
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const id = useId()

const editor = useEditor({
  // Its few lines of style stand in main.css: the content security policy takes no style elements.
  injectCSS: false,
  content: modelValue,
  extensions: [
    StarterKit.configure({ heading: { levels: [3, 4] }, link: { openOnClick: false } }),
    Sub,
    Sup,
    Picture,
    Media('audio'),
    Media('video'),
    ...(gaps ? [Gap] : []),
    TableKit.configure({ table: { resizable: false } }),
    InlineMath.configure({
      katexOptions: { throwOnError: false },
      onClick: (node, pos) => {
        maths.value = { tex: String(node.attrs.latex), pos }
      },
    }),
  ],
  editorProps: {
    attributes: {
      class: `written outline-none ${slim ? 'min-h-7' : 'min-h-24'}`,
      role: 'textbox',
      'aria-multiline': 'true',
      'aria-label': label,
      spellcheck: 'true',
      ...(language ? { lang: language } : {}),
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

function keepMaths() {
  if (!maths.value?.tex.trim()) {
    maths.value = null
    return
  }
  const { tex, pos } = maths.value
  if (pos === null) editor.value?.chain().focus().insertInlineMath({ latex: tex }).run()
  else editor.value?.chain().setNodeSelection(pos).updateInlineMath({ latex: tex }).focus().run()
  maths.value = null
}

/** Makes the chosen words a link; where none are chosen the address itself is put in. */
function keepLink() {
  const href = address.value!.trim()
  const current = editor.value!.chain().focus()
  if (!href) current.extendMarkRange('link').unsetLink().run()
  else if (!/^(?:https?:\/\/|mailto:)\S+$/i.test(href)) {
    problem.value = 'Write an address that begins with https://.'
    return
  } else if (editor.value!.state.selection.empty && !editor.value!.isActive('link'))
    current
      .insertContent([
        { type: 'text', text: href, marks: [{ type: 'link', attrs: { href } }] },
        { type: 'text', text: ' ' },
      ])
      .run()
  else current.extendMarkRange('link').setLink({ href }).run()
  problem.value = ''
  address.value = null
}

function chosen(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) picture.value = { file, alt: '', plays: 0 }
  ;(event.target as HTMLInputElement).value = ''
}

async function keepPicture() {
  if (!picture.value) return
  problem.value = ''
  try {
    const { src, kind } = await api<{ src: string; kind: 'picture' | 'sound' | 'film' }>('media', {
      method: 'POST',
      body: picture.value.file,
    })
    const words = picture.value.alt.trim()
    if (kind === 'picture') editor.value?.chain().focus().setImage({ src, alt: words }).run()
    else
      editor.value
        ?.chain()
        .focus()
        .insertContent({
          type: kind === 'sound' ? 'audio' : 'video',
          attrs: { src, 'aria-label': words, 'data-plays': picture.value.plays || null },
        })
        .run()
    picture.value = null
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}

/** Makes the marked words a gap, or a gap words again. */
function toggleGap() {
  const current = editor.value
  if (!current) return
  if (current.isActive('gap')) {
    current.chain().focus().extendMarkRange('gap').unsetMark('gap').run()
    return
  }
  if (current.state.selection.empty) {
    problem.value = 'Mark the word first that is to be a gap.'
    return
  }
  problem.value = ''
  const used = new Set([...current.getHTML().matchAll(/data-gap="([^"]*)"/g)].map((mark) => mark[1]))
  const free = Array.from({ length: 60 }, (_, i) => `g${i + 1}`).find((each) => !used.has(each))!
  current.chain().focus().setMark('gap', { gap: free }).run()
}

const tools = computed(() => [
  {
    name: 'Bold',
    icon: Bold,
    on: editor.value?.isActive('bold'),
    do: () => editor.value?.chain().focus().toggleBold().run(),
  },
  {
    name: 'Italic',
    icon: Italic,
    on: editor.value?.isActive('italic'),
    do: () => editor.value?.chain().focus().toggleItalic().run(),
  },
  {
    name: 'Lowered',
    icon: SubIcon,
    on: editor.value?.isActive('sub'),
    do: () => editor.value?.chain().focus().toggleMark('sub').run(),
  },
  {
    name: 'Raised',
    icon: SupIcon,
    on: editor.value?.isActive('sup'),
    do: () => editor.value?.chain().focus().toggleMark('sup').run(),
  },
  {
    name: 'Maths',
    icon: Sigma,
    on: false,
    do: () => {
      maths.value = { tex: '', pos: null }
    },
  },
  {
    name: 'Link',
    icon: Link2,
    on: editor.value?.isActive('link'),
    do: () => {
      address.value = String(editor.value?.getAttributes('link').href ?? '')
    },
  },
  { name: 'Picture, sound or film', icon: ImagePlus, on: false, do: () => chooser.value?.click() },
  {
    name: 'Record a sound',
    icon: Mic,
    on: false,
    do: () => {
      recording.value = true
    },
  },
  ...(slim
    ? []
    : [
        {
          name: 'List',
          icon: List,
          on: editor.value?.isActive('bulletList'),
          do: () => editor.value?.chain().focus().toggleBulletList().run(),
        },
        {
          name: 'Numbered list',
          icon: ListOrdered,
          on: editor.value?.isActive('orderedList'),
          do: () => editor.value?.chain().focus().toggleOrderedList().run(),
        },
        {
          name: 'Table',
          icon: TableIcon,
          on: editor.value?.isActive('table'),
          do: () => editor.value?.chain().focus().insertTable({ rows: 2, cols: 3, withHeaderRow: false }).run(),
        },
      ]),
])
const open = ref(false)
/** Of the chosen picture, in pixels. */
const width = computed(() =>
  editor.value?.isActive('image') ? Math.round(Number(editor.value.getAttributes('image').width)) || null : undefined,
)
function setWidth(event: Event) {
  const wanted = Number((event.target as HTMLInputElement).value)
  editor.value
    ?.chain()
    .updateAttributes('image', { width: wanted >= 40 ? Math.min(1600, Math.round(wanted)) : null, height: null })
    .run()
}
function leaveLink() {
  address.value = null
  problem.value = ''
}
function takeRecording(file: File) {
  recording.value = false
  picture.value = { file, alt: '', plays: 0 }
}
</script>

<template>
  <div
    class="rounded border border-rule border-b-2 border-b-petrol bg-sheet"
    @focusin="open = true"
    @focusout="open = ($event.currentTarget as HTMLElement).contains($event.relatedTarget as Node | null)"
  >
    <div
      v-show="!slim || open"
      class="flex flex-wrap gap-0.5 border-b border-rule px-1.5 py-1"
      role="toolbar"
      :aria-label="`Tools for ${label}`"
    >
      <button
        v-for="tool in tools"
        :key="tool.name"
        type="button"
        class="grid size-7 place-items-center rounded hover:bg-petrol-tint"
        :class="tool.on && 'bg-petrol-tint text-petrol'"
        :aria-pressed="tool.on || undefined"
        :aria-label="tool.name"
        :title="tool.name"
        @click="tool.do()"
      >
        <component :is="tool.icon" :size="16" aria-hidden="true" />
      </button>
      <button
        v-if="gaps"
        type="button"
        class="btn ml-1 h-7 px-2 py-0 text-[0.875rem]"
        :aria-pressed="editor?.isActive('gap') || undefined"
        :class="editor?.isActive('gap') && 'border-bloom! text-bloom!'"
        @click="toggleGap"
      >
        {{ editor?.isActive('gap') ? 'No gap' : 'Gap' }}
      </button>
      <label v-if="width !== undefined" class="ml-1 flex items-center gap-1 text-[0.8125rem] text-soft"
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
        accept="image/png,image/jpeg,image/gif,image/webp,audio/*,video/mp4,video/webm"
        class="hidden"
        @change="chosen"
      />
    </div>
    <p v-if="problem && !picture && address === null" role="alert" class="note-look text-[0.9375rem]">{{ problem }}</p>
    <EditorContent :editor="editor" class="px-3 py-2 text-lg" />
    <ModalDialog :open="maths !== null" title="Maths" @close="maths = null">
      <template v-if="maths">
        <label class="label" :for="`${id}-tex`">In TeX, for instance \frac{3}{12}R</label>
        <input
          :id="`${id}-tex`"
          v-model="maths.tex"
          class="field font-mono"
          spellcheck="false"
          @keydown.enter.prevent="keepMaths"
        />
        <div class="mt-4 flex justify-end gap-2">
          <button type="button" class="btn" @click="maths = null">Leave it</button
          ><button type="button" class="btn btn-main" @click="keepMaths">Put it in</button>
        </div>
      </template>
    </ModalDialog>
    <ModalDialog :open="address !== null" title="Link" @close="address = null">
      <form v-if="address !== null" @submit.prevent="keepLink">
        <label class="label" :for="`${id}-link`">Address; empty takes the link away</label>
        <input
          :id="`${id}-link`"
          v-model="address"
          class="field"
          type="text"
          inputmode="url"
          placeholder="https://"
          maxlength="1000"
        />
        <p v-if="problem" role="alert" class="note-stop mt-3">{{ problem }}</p>
        <div class="mt-4 flex justify-end gap-2">
          <button type="button" class="btn" @click="leaveLink">Leave it</button
          ><button class="btn btn-main">Keep</button>
        </div>
      </form>
    </ModalDialog>
    <RecordDialog :open="recording" @close="recording = false" @take="takeRecording" />
    <ModalDialog :open="picture !== null" title="Picture, sound or film" @close="picture = null">
      <template v-if="picture">
        <p class="text-soft">{{ picture.file.name }}</p>
        <label class="label mt-3" :for="`${id}-alt`">What it shows, for those who cannot see it</label>
        <input :id="`${id}-alt`" v-model="picture.alt" class="field" maxlength="300" />
        <label v-if="!picture.file.type.startsWith('image')" class="label mt-3"
          >May be played<select v-model.number="picture.plays" class="field font-normal">
            <option :value="0">as often as one likes</option>
            <option v-for="n in 5" :key="n" :value="n">{{ n === 1 ? 'once' : `${n} times` }}</option>
          </select></label
        >
        <p v-if="problem" role="alert" class="note-stop mt-3">{{ problem }}</p>
        <div class="mt-4 flex justify-end gap-2">
          <button type="button" class="btn" @click="picture = null">Leave it</button
          ><button type="button" class="btn btn-main" :disabled="!picture.alt.trim()" @click="keepPicture">
            Put it in
          </button>
        </div>
      </template>
    </ModalDialog>
  </div>
</template>
