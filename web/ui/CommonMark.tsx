import MarkdownIt from 'markdown-it'

// No HTML in it: what is written is text and CommonMark, whoever wrote it.
const markdown = new MarkdownIt({ html: false, linkify: false })

/** A text in CommonMark as it is read. */
export const CommonMark = ({ text }: { readonly text: string }) => (
  <div className="prose-page" dangerouslySetInnerHTML={{ __html: markdown.render(text) }} />
)
