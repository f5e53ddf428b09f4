import { endpoints } from '@bocado/contract'
import { done, GRANULE } from '@bocado/server/testing/farm'
import { box, there } from '@bocado/server/testing/ground'
import { hourlyFile } from '@bocado/server/testing/upload'
import type { Page } from 'playwright-core'
import { afterEach, expect, test } from 'vitest'
import { choose, enterNumber, expectAccessible, press } from './page.js'
import { setStage, type Stage } from './stage.js'

/* From a plan over its job sheet to the record: at a desk, on a phone, by keyboard alone. */

const { equipment, ground, rules, treatments, watches } = endpoints
const SEASON = '2026-01-01'

let page: Page
let stage: Stage
let planned: string
let dilution: string
setStage(
  hourlyFile(2025, '2026-06-12'),
  async ({ app, at, place, as }) => {
    const watch = { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: '2026-05-14' }
    const watchId = done(await app.call(watches.create, at, watch, as)).id
    const label = { ...GRANULE, leastVolume: 400, maxWindMs: 3, mixing: 'water below pH 8' }
    const product = done(await app.call(treatments.addProduct, at, { ...label, ways: ['spray'] }, as))
    const plan = async (productId: string, plannedOn: string) =>
      done(await app.call(treatments.plan, at, { watchId, productId, plannedOn }, as)).id
    planned = await plan(product.id, '2026-06-14')
    const percent = { ...GRANULE, name: 'Soap by the hundred', labelRate: 2, rateUnit: '% v/v' as const }
    const soap = done(await app.call(treatments.addProduct, at, { ...percent, ways: ['spot-spray'] }, as))
    dilution = await plan(soap.id, '2026-06-15')
    const machine = { name: 'Tower sprayer', kind: 'air-blast', tankL: 757.082, sprayLPerHa: 467.7 } as const
    done(await app.call(equipment.addMachine, at, machine, as))
    const lot = { productId: product.id, number: 'L 26-04', amount: 1, unit: 'L', cameOn: '2026-05-01' } as const
    done(await app.call(equipment.addLot, at, lot, as))
    // The block lies beside a brook, 40 m to its east.
    done(await app.call(ground.draw, at, { kind: 'outline', placeId: place.blockId, geometry: box(0, 0, 200, 200) }, as))
    const brook = { type: 'LineString' as const, coordinates: [there(240, 0), there(240, 200)] }
    done(await app.call(ground.draw, at, { kind: 'water', name: 'Mill Brook', geometry: brook }, as))
    const told = { name: 'Neighbours hear of it', kind: 'notice', act: 'spraying', whose: 'own', amount: 1 } as const
    done(await app.call(rules.add, at, told, as))
    const asked = { name: 'The owner is asked', kind: 'consent', act: 'spraying', whose: 'own' } as const
    done(await app.call(rules.add, at, asked, as))
  },
  (set) => {
    stage = set
    page = set.page
  },
)
afterEach(() => page.setViewportSize({ width: 1280, height: 800 }))

const says = () => page.getByTestId('mix-says')
const sentence = () => page.getByTestId('sentence')
const openSheet = (id: string) => stage.open(`treatments/${id}/sheet`)

test('a job whose consent is missing is stopped, without amounts, until it is noted under Site', async () => {
  await stage.open('treatments')
  await page.getByRole('link', { name: 'Job sheet' }).first().click()
  await page.getByText(/The owner is asked: no consent is noted/).waitFor()
  await page.getByText(/nobody puts it aside/).waitFor()
  expect(await page.getByRole('heading', { name: 'What is needed' }).count()).toBe(0)
  await expectAccessible(page, 'a job sheet that is stopped')
  await stage.open('site')
  await press(page, 'Note a consent or a permit')
  await page.getByRole('textbox', { name: 'Who gave it' }).fill('The owner of the ground')
  await press(page, 'Save')
  await page.getByText('The owner of the ground consents').waitFor()
  await openSheet(planned)
  await page.getByText(/^Nothing stops it\./).waitFor()
  await page.getByText(/The owner of the ground consents/).waitFor()
})

test('amounts for the area are worked out by tank, and the sprayer is remembered', async () => {
  await enterNumber(page, 'Area', 10)
  await enterNumber(page, 'Spray', 50)
  await enterNumber(page, 'Tank', 200)
  // 10 acres at 50 gal each: 500 gal, of which 200 go into a tank; 4.047 ha at 0.1 L are 0.405 L.
  await says().getByText('In all 0.405 L in 500 gal.').waitFor()
  await says().getByText('2 full tanks, each with 0.162 L; the last one 100 gal with 0.081 L.').waitFor()
  await page.getByText('Of mixing the label says: water below pH 8').waitFor()
  await expectAccessible(page, 'a job sheet')
  await page.reload()
  await expect.poll(() => page.getByRole('textbox', { name: 'Tank' }).inputValue()).toBe('200')
  // A machine brings what it holds and what it is set to.
  await enterNumber(page, 'Tank', 20)
  await choose(page, 'Put out with', 'Tower sprayer')
  await expect.poll(() => page.getByRole('textbox', { name: 'Tank' }).inputValue()).toBe('200')
})

test('never above the label, never with less water than it asks for, less of it with a reason', async () => {
  await enterNumber(page, 'Rate', 0.2)
  await page.getByText('The label allows at most 0.1 L/ha.').waitFor()
  expect(await says().count()).toBe(0)
  await enterNumber(page, 'Rate', 0.08)
  await page.getByRole('textbox', { name: 'Why less than the label names' }).fill('young trees')
  await enterNumber(page, 'Spray', 20)
  await page.getByText(/The label asks for at least 42\.8 gal\/acre of water\./).waitFor()
  await enterNumber(page, 'Spray', 50)
})

test('what comes out of a nozzle is held against what is wanted; on a phone nothing is wider than the screen', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await press(page, 'Check what comes out')
  await enterNumber(page, 'One nozzle gives', 0.8)
  await enterNumber(page, 'Speed', 6)
  await enterNumber(page, 'Between nozzles', 0.5)
  // 160 L/ha are 17.1 gal/acre, where 50 are wanted.
  await page.getByText(/It puts out 17\.1 gal\/acre, 66 % less than is wanted\./).waitFor()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})

test('on the spot: told, checked, wind measured, begun; it is there again when the page was closed meanwhile', async () => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.getByText(/Neighbours hear of it: nobody was told yet/).waitFor()
  await press(page, 'Note whom you told')
  await page.getByRole('textbox', { name: 'Whom' }).fill('the house across the lane')
  await press(page, 'Save')
  await page.getByText(/the house across the lane was told/).waitFor()
  await expect.poll(() => page.getByText(/nobody was told yet/).count()).toBe(0)
  await page.locator('label', { hasText: 'No children, animals or visitors near' }).click()
  await enterNumber(page, 'Wind, measured here', 9)
  await page.getByText(/^Wait: the label or a rule/).waitFor()
  await enterNumber(page, 'Wind, measured here', 4)
  await expect.poll(() => page.getByText(/^Wait: the label or a rule/).count()).toBe(0)
  await page.getByText(/^The wind must not blow from S to N: Mill Brook, 131 ft/).waitFor()
  await choose(page, 'Wind from', 'WSW')
  await page.getByText(/^Wait: from there it carries to Mill Brook/).waitFor()
  await choose(page, 'Wind from', 'E')
  await expect.poll(() => page.getByText(/^Wait: from there/).count()).toBe(0)
  await press(page, 'Begin now')
  await page.getByText(/^Begun at/).waitFor()
  await page.reload()
  await expect.poll(() => page.getByRole('checkbox', { name: 'No children, animals or visitors near' }).isChecked()).toBe(true)
  await page.getByText(/^Begun at/).waitFor()
})

test('the record is a sentence that knows all of it; what is confirmed by keyboard alone stands there', async () => {
  await page.getByRole('link', { name: 'Record it as done' }).click()
  await sentence()
    .getByText(/0\.08 L\/ha, in all .*, spray, lot L 26-04/)
    .waitFor()
  await sentence()
    .getByText(/wind 4 mph from E/)
    .waitFor()
  await sentence()
    .getByText(/Tower sprayer/)
    .waitFor()
  await sentence()
    .getByText(/young trees/)
    .waitFor()
  await expectAccessible(page, 'a record as a sentence')
  // What is known is not asked for: nothing is open that could be typed into but the distance kept, where anything lies near.
  expect(await page.getByRole('textbox', { name: 'Begun at' }).count()).toBe(0)
  await sentence()
    .getByRole('button', { name: /Old Apples/ })
    .focus()
  await page.keyboard.press('Enter')
  await page.getByRole('textbox', { name: 'Stage of the crop' }).focus()
  await page.keyboard.type('BBCH 72')
  await sentence()
    .getByText(/BBCH 72/)
    .waitFor()
  await page.getByRole('button', { name: 'Record it' }).focus()
  await page.keyboard.press('Enter')
  await page.getByText(/Granule C at 0\.08 L\/ha/).waitFor()
  await page.getByText(/lot L 26-04, Tower sprayer, .*BBCH 72/).waitFor()
})

test('a rate above the label is recorded with how it came to that, and marked', async () => {
  await press(page, 'Correct the record')
  await sentence()
    .getByRole('button', { name: /0\.08 L\/ha/ })
    .click()
  await enterNumber(page, 'Rate', 0.3)
  await page.getByText(/^That is above the label\./).waitFor()
  await press(page, 'Record it')
  await page.getByText('say how it came to that').waitFor()
  await page.getByRole('textbox', { name: 'How it came to that' }).fill('the jug was misread')
  await press(page, 'Record it')
  await page.getByText(/Departs from the book: the rate is above the label.*the jug was misread/).waitFor()
})

test('what hangs at the gate says until when nobody goes in, and the season is put together', async () => {
  await page.getByRole('link', { name: 'For the gate' }).click()
  await page.getByRole('heading', { name: /^(Keep out until|Open again since)/ }).waitFor()
  await page.getByRole('row', { name: /Wear, if you must gloves/ }).waitFor()
  await expectAccessible(page, 'a posting for the gate')
  await stage.open('treatments/season')
  await page.getByRole('row', { name: /Old Apples 1 / }).waitFor()
  await page.getByText(/one of them not by the book/).waitFor()
  await page.getByText(/above the rate of the label.*the jug was misread/).waitFor()
  await expectAccessible(page, 'the record of a season')
})

test('a shelf file that is wrong says in which row, and puts nothing there; a right one is taken in', async () => {
  await stage.open('treatments')
  await press(page, 'As a file')
  const file = (text: string) => ({ name: 'shelf.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  const head = 'name,methods,stages,labelRate,rateUnit,reEntryHours,preHarvestDays,bees,protection'
  const row = (name: string, rate: string) => `${name},"[""kaolin""]","[""adult""]",${rate},kg/ha,4,0,none-stated,mask`
  await page.locator('input[type=file]').setInputFiles(file([head, row('White clay', '25'), row('Worse clay', 'much')].join('\n')))
  await page.getByText(/row 2, labelRate/).waitFor()
  expect(await page.getByText('White clay').count()).toBe(0)
  await page.locator('input[type=file]').setInputFiles(file([head, row('White clay', '25')].join('\n')))
  await page.getByText('One product taken in.').waitFor()
  await page.getByText('White clay', { exact: true }).waitFor()
})

test('a dilution goes by the spray', async () => {
  await openSheet(dilution)
  await press(page, 'Spray by the canopy, or in all')
  await enterNumber(page, 'Spray in all', 4)
  // 2 % of 15.14 L.
  await says().getByText('In all 0.303 L in 4 gal.').waitFor()
})
