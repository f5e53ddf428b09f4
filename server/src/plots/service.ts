import type { CoverLine, ParsedInputOf, Plot, plots, ResponseOf } from '@bocado/contract'
import { civilDate, coverTrend, dayNumber, meanCover, oneLookASeason, sameDayInYear } from '@bocado/core'
import { grouped, insertRow, isStored, liveRow, madeColumns, restoreRow, updateRow, type Queryable, type Write } from '../database/index.js'
import { requireNear } from '../ground/service.js'
import { fieldProblem, refusal } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { addPhoto } from '../library/identity.js'
import { blockOf, tree } from '../places/store.js'
import { getSite, seasonOf } from '../sites/service.js'
import { listLooks, listPlots, wantedNames, type StoredLook } from './store.js'

/** A photo of a plot shows ground, and not an organism. */
const GROUND = 'unknown'

type Side = CoverLine['of']
type PlotInput = ParsedInputOf<typeof plots.add>

/** Plots with their looks and the names of their plants, and how the cover of each plant goes in each place. */
export async function plotsOf(db: Queryable, siteId: string): Promise<ResponseOf<typeof plots.list>> {
  const [stored, looks, wanted, organisms] = [
    await listPlots(db, siteId),
    await listLooks(db, siteId),
    await wantedNames(db, siteId),
    await organismsOf(db, siteId),
  ]
  const weeds = new Map(organisms.map(({ id, name }) => [id, name]))
  const nameOf = (of: Side, id: string): string => (of === 'weed' ? weeds : wanted).get(id) ?? id
  const byPlot = grouped(looks, ({ plotId }) => plotId)
  const all = stored.map(({ weeds: seenWeeds, wanted: seenWanted, ...plot }) => {
    const own = byPlot.get(plot.id) ?? []
    const [newest] = own
    return {
      ...plot,
      plants: [
        ...seenWeeds.map((id) => ({ of: 'weed' as const, id, name: nameOf('weed', id) })),
        ...seenWanted.map((id) => ({ of: 'wanted' as const, id, name: nameOf('wanted', id) })),
      ],
      dueOn: newest ? (newest.dueOn ?? civilDate(sameDayInYear(dayNumber(newest.lookedOn), 1))) : null,
      looks: own,
    }
  })
  return {
    plots: all.map(({ looks: own, ...plot }): Plot => ({
      ...plot,
      looks: own.map(({ plotId: _, season: __, dueOn: ___, ...look }) => ({
        ...look,
        covers: look.covers.map((one) => ({ ...one, name: nameOf(one.of, one.id) })),
      })),
    })),
    covers: linesOf(all, nameOf),
  }
}

interface KnownPlot {
  placeId: string
  placeName: string
  worked: boolean
  looks: readonly StoredLook[]
}

/** Cover by place, by whether its plots are worked at, and by plant. */
function linesOf(all: readonly KnownPlot[], nameOf: (of: Side, id: string) => string): CoverLine[] {
  const lines: CoverLine[] = []
  for (const group of grouped(all, ({ placeId, worked }) => `${placeId} ${worked}`).values()) {
    const [{ placeId, placeName, worked }] = group as [KnownPlot, ...KnownPlot[]]
    const seen = group.map(({ looks }) =>
      oneLookASeason(
        looks.map(({ season, lookedOn, covers }) => ({
          season: Number(season.slice(0, 4)),
          start: season,
          day: dayNumber(lookedOn) - dayNumber(season),
          covers,
        })),
      ),
    )
    const plants = new Map(seen.flatMap((own) => own.flatMap(({ covers }) => covers.map(({ of, id }) => [`${of} ${id}`, { of, id }]))))
    for (const { of, id } of plants.values()) {
      const byPlot = seen.map((own) =>
        own.flatMap(({ season, start, covers }) => {
          const cover = covers.find((one) => one.of === of && one.id === id)?.cover
          return cover === undefined ? [] : [{ year: season, start, cover }]
        }),
      )
      const seasons = [...grouped(byPlot.flat(), ({ start }) => start)].sort(([a], [b]) => (a < b ? -1 : 1))
      lines.push({
        placeId,
        placeName,
        worked,
        of,
        id,
        name: nameOf(of, id),
        seasons: seasons.flatMap(([season, own]) => {
          const cover = meanCover(own.map((one) => one.cover))
          return cover ? [{ season, ...cover }] : []
        }),
        trend: coverTrend(byPlot) ?? null,
      })
    }
  }
  // What is to go stands before what is to come, in each place.
  return lines.sort(
    (a, b) =>
      a.placeName.localeCompare(b.placeName) ||
      a.placeId.localeCompare(b.placeId) ||
      Number(b.worked) - Number(a.worked) ||
      b.of.localeCompare(a.of) ||
      a.name.localeCompare(b.name),
  )
}

/** Refuses what a plot cannot be. */
async function requirePlot(w: Write, { placeId, weeds, wanted, position }: Omit<PlotInput, 'note'>): Promise<void> {
  if (!(await tree(w.tx, w.siteId)).has(placeId)) throw fieldProblem('placeId', 'choose a place of this site')
  const organisms = new Set((await organismsOf(w.tx, w.siteId)).map(({ id }) => id))
  if (weeds.some((id) => !organisms.has(id))) throw fieldProblem('weeds', 'choose weeds of the library, or your own')
  const names = await wantedNames(w.tx, w.siteId)
  if (wanted.some((id) => !names.has(id))) throw fieldProblem('wanted', 'choose plants of your own list')
  await requireNear(w, position)
}

const columnsOf = (input: PlotInput, number: number) => ({
  place_id: input.placeId,
  number,
  side_m: input.sideM,
  worked: input.worked,
  weeds: JSON.stringify([...new Set(input.weeds)]),
  wanted: JSON.stringify([...new Set(input.wanted)]),
  latitude: input.position?.latitude ?? null,
  longitude: input.position?.longitude ?? null,
  accuracy_m: input.position?.accuracyM ?? null,
  from_what: input.fromWhat,
  bearing_deg: input.bearingDeg,
  paces: input.paces,
  note: input.note,
})

/** No two stakes of a site carry one number. */
async function requireNumber(w: Write, number: number | null, own: string | null): Promise<number> {
  // Two who mark out a plot at once wait for each other here.
  await liveRow(w.tx, w.siteId, 'site', w.siteId, true)
  const others = (await listPlots(w.tx, w.siteId)).filter(({ id }) => id !== own)
  if (number === null) return Math.max(0, ...others.map((one) => one.number)) + 1
  if (others.some((one) => one.number === number)) throw fieldProblem('number', 'another plot has this number on its stake')
  return number
}

export async function addPlot(w: Write, input: PlotInput) {
  await requirePlot(w, input)
  const id = await insertRow(w, 'plot', columnsOf(input, await requireNumber(w, input.number, null)))
  return { id, rowVersion: 1 }
}

export async function changePlot(w: Write, id: string, { rowVersion, ...input }: ParsedInputOf<typeof plots.update>) {
  await requirePlot(w, input)
  const before = await liveRow(w.tx, w.siteId, 'plot', id)
  await updateRow(w, 'plot', id, rowVersion, columnsOf(input, await requireNumber(w, input.number ?? (before['number'] as number), id)))
  return { id, rowVersion: rowVersion + 1 }
}

export async function restorePlot(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'plot', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}

/** Records a look under the id that its device gave it, with its photo. */
export async function addLook(w: Write, deps: Deps, { id, made, plotId, photo, ...input }: ParsedInputOf<typeof plots.look>) {
  if (id !== undefined && (await isStored(w, 'plot_look', id))) return { id, rowVersion: 1 }
  const plot = (await listPlots(w.tx, w.siteId)).find((one) => one.id === plotId)
  if (!plot) throw fieldProblem('plotId', 'choose a plot of this site')
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (input.lookedOn > site.today) throw refusal('lookedOn', 'day.future', { today: { day: site.today } })
  // What a phone saw stays seen, though the plot is looked at for something else by now.
  const weeds = new Set((await organismsOf(w.tx, w.siteId)).map(({ id: weed }) => weed))
  const wanted = await wantedNames(w.tx, w.siteId)
  for (const [i, { of, id: plant }] of input.covers.entries()) {
    if (!(of === 'weed' ? weeds : wanted).has(plant)) throw fieldProblem(`covers.${i}`, 'is no plant of this site')
    if (input.covers.findIndex((one) => one.of === of && one.id === plant) !== i) throw fieldProblem(`covers.${i}`, 'is there twice')
  }
  const madeBy = madeColumns(w, made)
  // Sent twice at once, the second waits here for the first.
  await liveRow(w.tx, w.siteId, 'plot', plotId, true)
  if (id !== undefined && (await isStored(w, 'plot_look', id))) return { id, rowVersion: 1 }
  const block = blockOf(await tree(w.tx, w.siteId), plot.placeId)
  const photoId = photo ? await addPhoto(w, { organismId: GROUND, blockId: block?.id ?? null }, photo, site.today) : null
  const lookId = await insertRow(
    w,
    'plot_look',
    {
      plot_id: plotId,
      season: seasonOf(site, input.lookedOn),
      looked_on: input.lookedOn,
      covers: JSON.stringify(input.covers),
      minutes: input.minutes,
      due_on: input.dueOn,
      photo_id: photoId,
      note: input.note,
      ...madeBy,
    },
    id,
  )
  return { id: lookId, rowVersion: 1 }
}

export async function restoreLook(w: Write, id: string, rowVersion: number) {
  await restoreRow(w, 'plot_look', id, rowVersion)
  return { id, rowVersion: rowVersion + 1 }
}
