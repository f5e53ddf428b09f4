import { useQueryErrorResetBoundary } from '@tanstack/react-query'
import { Link, useLocation, useNavigate, useRouteError } from 'react-router'
import { RequestProblem } from '../api/client.js'
import { Button } from '../design/buttons.js'
import { Line, Page, Title } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { ScreenMissing } from './ScreenMissing.js'

/** A fault of the page itself, or of one part of a screen: says so, and how to go on. */
export function Stumble({ inside = false }: { inside?: boolean }) {
  const t = useText()
  const error = useRouteError()
  const { reset } = useQueryErrorResetBoundary()
  const location = useLocation()
  const navigate = useNavigate()
  const again = (): void => {
    // What did not come is remembered as missing until the page begins anew.
    if (error instanceof ScreenMissing) return window.location.reload()
    reset()
    void navigate(location, { replace: true })
  }
  return (
    <Page as={inside ? 'section' : 'main'}>
      <Title as={inside ? 'h2' : 'h1'}>{t('stumble.title')}</Title>
      <p>
        {error instanceof RequestProblem ? error.problem.detail : t(error instanceof ScreenMissing ? 'stumble.missing' : 'stumble.text')}
      </p>
      <Line>
        <Button onPress={again}>{t('stumble.again')}</Button>
        <Link to="/">{t('stumble.back')}</Link>
      </Line>
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
