import { Link, useRouteError } from 'react-router'
import { RequestProblem } from '../api/client.js'
import { Page, Title } from '../design/text.js'
import { useText } from '../messages/useText.js'

/** A fault of the page itself, or of one part of a screen: says so, and how to go on. */
export function Stumble({ inside = false }: { inside?: boolean }) {
  const t = useText()
  const error = useRouteError()
  return (
    <Page as={inside ? 'section' : 'main'}>
      <Title as={inside ? 'h2' : 'h1'}>{t('stumble.title')}</Title>
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
