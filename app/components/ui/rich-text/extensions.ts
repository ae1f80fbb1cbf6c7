import Image from '@tiptap/extension-image'
import { InlineMath } from '@tiptap/extension-mathematics'
import { TableKit } from '@tiptap/extension-table'
import StarterKit from '@tiptap/starter-kit'
import { Extension, Mark, Node, type Extensions } from '@tiptap/vue-3'

const Lowered = Mark.create({ name: 'sub', parseHTML: () => [{ tag: 'sub' }], renderHTML: () => ['sub', 0] })
const Raised = Mark.create({ name: 'sup', parseHTML: () => [{ tag: 'sup' }], renderHTML: () => ['sup', 0] })

/** Sized by dragging its corner, or by the field in the tools while it is chosen. */
const Picture = Image.extend({
  addAttributes() {
    return { src: {}, alt: { default: '' }, width: { default: null }, height: { default: null } }
  },
}).configure({
  resize: { enabled: true, directions: ['bottom-right'], minWidth: 40, minHeight: 24, alwaysPreserveAspectRatio: true },
})

/** A link to a document that Thistle keeps says what the document is called. */
const DocumentName = Extension.create({
  name: 'documentName',
  addGlobalAttributes: () => [{ types: ['link'], attributes: { download: { default: null } } }],
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
const media = (name: 'audio' | 'video') =>
  Node.create({
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

/**
 * What rich text may hold: core's allow-list (core/question/html.ts) as the editor knows it.
 * @param gaps words can be made gaps
 * @param openMaths is told which piece of maths was chosen, and where it stands
 */
export function extensions(gaps: boolean, openMaths: (tex: string, pos: number) => void): Extensions {
  return [
    StarterKit.configure({ heading: { levels: [3, 4] }, link: { openOnClick: false } }),
    DocumentName,
    Lowered,
    Raised,
    Picture,
    media('audio'),
    media('video'),
    ...(gaps ? [Gap] : []),
    TableKit.configure({ table: { resizable: false } }),
    InlineMath.configure({
      katexOptions: { throwOnError: false },
      onClick: (node, pos) => openMaths(String(node.attrs.latex), pos),
    }),
  ]
}
