import { wrap } from 'comlink'
import { useEffect, useState } from 'react'
import styled from 'styled-components'
import { PlainTable, Small, Stack } from '../design/text.js'
import { colour, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { CountedAgainst, CountsEnd } from '../workers/counts.js'
import type { CountsWorker } from '../workers/counts.worker.js'
import '../messages/en/count.js'
import '../messages/en/work.js'

const Ends = styled(PlainTable)`
  td {
    white-space: nowrap;
    vertical-align: middle;
  }
  @media ${PHONE} {
    th:nth-child(2),
    td:nth-child(2) {
      display: none;
    }
  }
`
/** Shares of one row, side by side, as long as they are large. */
const Bar = styled.div`
  display: flex;
  height: 14px;
  min-width: 16ch;
  border: 1px solid ${colour.ink};
  i {
    background: ${colour.white};
  }
  i:first-child {
    background: ${colour.beet};
  }
  i:nth-child(2) {
    background: repeating-linear-gradient(45deg, ${colour.white} 0 3px, ${colour.inkSoft} 3px 4px);
  }
`

function useCountsEnd(against: CountedAgainst): CountsEnd[] | null {
  const asked = JSON.stringify(against)
  const [ends, setEnds] = useState<{ of: string; ends: CountsEnd[] } | null>(null)
  useEffect(() => {
    let current = true
    const thread = new Worker(new URL('../workers/counts.worker.ts', import.meta.url), { type: 'module' })
    void wrap<CountsWorker>(thread)
      .countsEnd(JSON.parse(asked) as CountedAgainst)
      .then((found) => current && setEnds({ of: asked, ends: found }))
    return () => {
      current = false
      thread.terminate()
    }
  }, [asked])
  return ends?.of === asked ? ends.ends : null
}

/** How often counts by these lines end in what, where the truth is known: simulated beside the page, and no more once it is closed. */
export function WhyLines({ against, items, units }: { against: CountedAgainst; items: string; units: string }) {
  const t = useText()
  const f = useFormat()
  const ends = useCountsEnd(against)
  return (
    <Stack $gap={8}>
      <Ends data-testid="counts-end" aria-label={t('count.ends.title')}>
        <thead>
          <tr>
            <th scope="col">{t('count.ends.truth', { items })}</th>
            <th scope="col">{t('count.ends.how')}</th>
            <th scope="col">{t('count.ends.act')}</th>
            <th scope="col">{t('count.ends.undecided')}</th>
            <th scope="col">{t('count.ends.stop')}</th>
            <th scope="col">{units}</th>
          </tr>
        </thead>
        <tbody>
          {(ends ?? []).map(({ per100, act, undecided, stop, units: looked }) => (
            <tr key={per100}>
              <td>{f.number(per100, 2)}</td>
              <td>
                <Bar aria-hidden>
                  <i style={{ flexGrow: act }} />
                  <i style={{ flexGrow: undecided }} />
                  <i style={{ flexGrow: stop }} />
                </Bar>
              </td>
              <td>{f.percent(act)}</td>
              <td>{f.percent(undecided)}</td>
              <td>{f.percent(stop)}</td>
              <td>{f.number(looked)}</td>
            </tr>
          ))}
        </tbody>
      </Ends>
      <Small role="status">{ends ? t('count.ends.from') : t('count.ends.waiting')}</Small>
    </Stack>
  )
}
