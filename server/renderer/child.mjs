// A process of its own for bytes that people send: what reads them has no part in anything else, and is ended where it takes
// too long or too much memory. What each job is stands in job.ts.
import { marked, picture, square } from './pictures.mjs'
import { pageOf, pagesIn, textOfPages, wordsOn } from './pdf.mjs'
import { rowsIn, textIn } from './texts.mjs'

const jobs = {
  square: async ({ bytes }) => ({ picture: await square(bytes) }),
  picture: async ({ path, most }) => ({ picture: await picture(path, most) }),
  pages: async ({ path }) => ({ content: { pages: await pagesIn(path) } }),
  page: async ({ path, page, most }) => ({ picture: await pageOf(path, page, most) }),
  words: async ({ path, page }) => ({ content: { words: await wordsOn(path, page) } }),
  text: async ({ path }) => ({ content: await textIn(path) }),
  rows: async ({ path, separator }) => ({ content: await rowsIn(path, separator) }),
  plain: async ({ path, media }) => ({
    content: media === 'application/pdf' ? await textOfPages(path) : (await textIn(path)).text,
  }),
  marked: async ({ bytes, line }) => ({ picture: await marked(bytes, line) }),
}

process.on('message', async ({ id, kind, ...job }) => {
  process.send?.({ id, ...(await jobs[kind](job).catch(faultOf)) })
})

const faultOf = error => ({ fault: error.isTooLarge === true ? 'too-large' : 'broken' })
