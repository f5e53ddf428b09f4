import { Link, useRouteError } from 'react-router'
import { RequestProblem } from '../api/client.js'
import { Page, Title } from '../design/text.js'
import { useText } from '../messages/useText.js'

/** A fault of the page itself: says so, and how to go on. */
export function Stumble() {
  const t = useText()
  const error = useRouteError()
  return (
    <Page>
      <Title>{t('stumble.title')}</Title>
      <p>{error instanceof RequestProblem ? error.problem.detail : t('stumble.text')}</p>
      <p>
        <Link to="/">{t('stumble.back')}</Link>
      </p>
    </Page>
  )
}

export function NotFound() {
  const t = useText()
  return (
    <Page>
      <Title>{t('notFound.title')}</Title>
      <p>
        <Link to="/">{t('stumble.back')}</Link>
      </p>
    </Page>
  )
}
