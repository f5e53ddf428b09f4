import { createIntl } from 'react-intl'
import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { en } from './en.js'

const intl = createIntl({
  locale: 'en-GB',
  messages: en,
  onError: (error) => {
    throw error
  },
})
const say = (id: keyof typeof en, values: Record<string, string | number>): string => intl.formatMessage({ id }, values)

const folder = new URL('..', import.meta.url)
const sources = readdirSync(folder, { recursive: true, encoding: 'utf8' })
  .filter((name) => /\.tsx?$/.test(name) && !name.includes('test') && !name.startsWith('messages/en'))
  .map((name) => readFileSync(new URL(name, folder), 'utf8'))
  .join('\n')

test('every message can be read', () => {
  const broken: string[] = []
  const lenient = createIntl({
    locale: 'en-GB',
    messages: en,
    onError: (error) => {
      // Values are missing here; what matters is whether the text itself is well formed.
      if (/SyntaxError/.test(error.message)) broken.push(error.message.slice(0, 200))
    },
  })
  for (const id of Object.keys(en) as (keyof typeof en)[]) lenient.formatMessage({ id })
  expect(broken).toEqual([])
})

test('every message is used somewhere, by its name or by the beginning of it', () => {
  const named = new Set(Array.from(sources.matchAll(/'([\w.-]+)'/g), ([, id]) => id))
  const begun = new Set(Array.from(sources.matchAll(/`([\w.-]+)\.\$\{/g), ([, beginning]) => beginning))
  const unused = Object.keys(en).filter((id) => {
    const beginnings = id.split('.').map((_, i, parts) => parts.slice(0, i).join('.'))
    return !named.has(id) && !beginnings.some((beginning) => begun.has(beginning)) && !/^separator\./.test(id)
  })
  expect(unused).toEqual([])
})

test('every stage that something can reach has its word, so that a product can be said to reach it', () => {
  const library = new URL('../../../library/', import.meta.url)
  const stages = ['organisms', 'pathogens', 'weeds'].flatMap((place) =>
    readdirSync(new URL(`${place}/`, library)).flatMap((file) => {
      const entry = JSON.parse(readFileSync(new URL(`${place}/${file}`, library), 'utf8')) as {
        about: { reach: { stages: string[] }[] }
      }
      return entry.about.reach.flatMap(({ stages: reached }) => reached)
    }),
  )
  expect([...new Set(stages)].filter((id) => !(`stage.${id}` in en))).toEqual([])
})

test('days to come and gone by are said as people say them', () => {
  const inDays = (days: number): string => say('inDays', { when: days < 0 ? 'past' : 'coming', days: Math.abs(days) })
  expect([-5, -1, 0, 1, 3].map(inDays)).toEqual(['5 days ago', 'yesterday', 'today', 'tomorrow', 'in 3 days'])
})

test('nothing counted is said without a number', () => {
  expect(say('windows.title', { watches: 0, open: 0 })).toBe('Nothing is watched yet')
  expect(say('windows.title', { watches: 3, open: 1 })).toBe('3 watches, one open')
  expect(say('import.new', { count: 0, first: '', last: '' })).toBe('Nothing new')
})

test('one of something is said in the singular, whatever else the message says', () => {
  const NOUNS =
    'days|hours|seasons|weeks|plants|trees|units|counts|issues|readings|generations|sites|rows|lines|records|blooms|watches|columns|files|years|minutes|members|pieces|forecasts|months|stations|blocks|people|finds|photos'
  const bare = Object.entries(en).filter(([, text]) => {
    // What a choice by number says of itself is right by its choice.
    const outside = text.replace(/\{\w+, plural,(?:[^{}]|\{(?:[^{}]|\{[^{}]*\})*\})*\}/g, 'N')
    return new RegExp(`\\{\\w+(?:, number)?\\} (?:past )?(?:${NOUNS})\\b`).test(outside)
  })
  expect(bare.map(([id]) => id)).toEqual([])
  expect(['1', '2.3', '1,240'].map((days) => say('moved.days', { days }))).toEqual(['1 day', '2.3 days', '1,240 days'])
})

test('no message shouts', () => {
  for (const [id, text] of Object.entries(en)) expect(text, id).not.toMatch(/!/)
})
