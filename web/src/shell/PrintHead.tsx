import { useEffect } from 'react'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import { size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { seasonName } from './screens.js'
import { usePageHead } from './usePageTitle.js'

const Head = styled.p`
  padding: 0 20px 8px;
  font-size: ${size.large};
`

/** Size in px of what is printed on a sheet of letter or A4 across, between its margins. */
const PAPER = { width: 970, height: 700 }
/** What stands above a picture on its sheet, as tall as on the screen. */
const ABOVE = 120

/** Lays the screen on the sheet as it stands: its pictures are drawn for the width that it has now. */
function layOnPaper(): void {
  const { style } = document.documentElement
  const zoom = Math.min(1.25, PAPER.width / window.innerWidth)
  style.setProperty('--paper-width', `${window.innerWidth}px`)
  style.setProperty('--paper-zoom', String(zoom))
  // A picture of many rows is made small enough for one sheet.
  for (const picture of document.querySelectorAll<HTMLElement>('[data-whole]')) {
    picture.style.setProperty('--whole-width', `${picture.clientWidth}px`)
    picture.style.setProperty('--whole-zoom', String(Math.min(1, (PAPER.height / zoom - ABOVE) / picture.clientHeight)))
  }
}

/** What stands at the head of a print: what it shows, of where, which part of it, and from which day. */
export function PrintHead() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { thing, part } = usePageHead()
  useEffect(() => {
    window.addEventListener('beforeprint', layOnPaper)
    return () => window.removeEventListener('beforeprint', layOnPaper)
  }, [])
  return (
    <Head className="on-paper">
      <b>{thing}</b>, {site.name}, {t('season', { season: seasonName(site.season.start) })}
      {part === '' ? '' : `, ${part}`}, {t('print.on', { date: f.withYear(f.today) })}
    </Head>
  )
}
