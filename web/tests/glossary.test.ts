import { existsSync, readFileSync } from 'node:fs'

import { expect, it } from 'vitest'

import terms from '../../docs/glossary/terms.json'

const page = readFileSync('../docs/glossary.md', 'utf8')

it.each(terms)(
  '$term has a drawing and stands in the docs as in the app',
  ({ key, term, text }) => {
    expect(existsSync(`../docs/glossary/${key}.svg`)).toBe(true)
    expect(page).toContain(`## ${term}\n\n![${term}](glossary/${key}.svg)\n\n${text}\n`)
  },
)
