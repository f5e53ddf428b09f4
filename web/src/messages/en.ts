import { field } from './en/field.js'
import { figures } from './en/figures.js'
import { normals } from './en/normals.js'
import { plan } from './en/plan.js'
import { plans } from './en/plans.js'
import { prevent } from './en/prevent.js'
import { account } from './en/account.js'
import { audit } from './en/audit.js'
import { bar } from './en/bar.js'
import { bloom } from './en/bloom.js'
import { duties } from './en/duties.js'
import { ground } from './en/ground.js'
import { count } from './en/count.js'
import { crops } from './en/crops.js'
import { flags } from './en/flags.js'
import { harvest } from './en/harvest.js'
import { board } from './en/board.js'
import { helping } from './en/helping.js'
import { threshold } from './en/threshold.js'
import { kit } from './en/kit.js'
import { arrivals } from './en/arrivals.js'
import { walked } from './en/walked.js'
import { traps } from './en/traps.js'
import { unsent } from './en/unsent.js'
import { rule } from './en/rule.js'
import { rules } from './en/rules.js'
import { label } from './en/label.js'
import { programme } from './en/programme.js'
import { today } from './en/today.js'
import { weeks } from './en/weeks.js'
import { rotation } from './en/rotation.js'
import { ahead } from './en/ahead.js'
import { alerts } from './en/alerts.js'
import { mix } from './en/mix.js'
import { job } from './en/job.js'
import { record } from './en/record.js'
import { equipment } from './en/equipment.js'
import { report } from './en/report.js'
import { review } from './en/review.js'
import { triage } from './en/triage.js'
import { companions } from './en/companions.js'
import { plots } from './en/plots.js'
import { trials } from './en/trials.js'
import { living } from './en/living.js'
import { known } from './en/known.js'
import { finds } from './en/finds.js'
import { late } from './en/late.js'
import { leaveCheck } from './en/leaveCheck.js'
import { beside } from './en/beside.js'
import { shell } from './en/shell.js'
import { site } from './en/site.js'
import { weather } from './en/weather.js'
import { importing } from './en/import.js'
import { glossary } from './en/glossary.js'
import { library } from './en/library.js'
import { records } from './en/records.js'
import { varieties } from './en/varieties.js'
import { wind } from './en/wind.js'
import { windows } from './en/windows.js'
import { walk } from './en/walk.js'
import { words } from './en/words.js'
import { work } from './en/work.js'

/** Every text of the interface in English, in ICU message format, grouped by screen. */
export const en = {
  ...shell,
  ...account,
  ...audit,
  ...bar,
  ...field,
  ...figures,
  ...normals,
  ...plan,
  ...site,
  ...weather,
  ...importing,
  ...wind,
  ...windows,
  ...records,
  ...library,
  ...varieties,
  ...bloom,
  ...duties,
  ...ground,
  ...count,
  ...crops,
  ...flags,
  ...harvest,
  ...helping,
  ...board,
  ...rule,
  ...rules,
  ...label,
  ...programme,
  ...today,
  ...weeks,
  ...prevent,
  ...plans,
  ...rotation,
  ...ahead,
  ...alerts,
  ...known,
  ...finds,
  ...late,
  ...leaveCheck,
  ...living,
  ...mix,
  ...job,
  ...record,
  ...equipment,
  ...report,
  ...review,
  ...triage,
  ...companions,
  ...plots,
  ...trials,
  ...beside,
  ...threshold,
  ...kit,
  ...arrivals,
  ...walked,
  ...traps,
  ...unsent,
  ...work,
  ...walk,
  ...words,
  ...glossary,
} as const
