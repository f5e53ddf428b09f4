import { lazy, Suspense, type ComponentType } from 'react'
import { createBrowserRouter, Navigate } from 'react-router'
import { FirstSite } from './FirstSite.js'
import { Gate } from './Gate.js'
import { later } from './later.js'
import { ScreenMissing } from './ScreenMissing.js'
import { Shell } from './Shell.js'
import { NotFound, Stumble } from './Stumble.js'
import { Waiting } from './Waiting.js'

/** A screen whose code is fetched when it is first opened, or beforehand by `fetchTheRest`. */
function screen(fetched: () => Promise<ComponentType>) {
  later(fetched)
  const Screen = lazy(async () => ({
    default: await fetched().catch((cause: unknown) => {
      throw new ScreenMissing(cause)
    }),
  }))
  return <Screen />
}

const whole = (fetched: () => Promise<ComponentType>) => <Suspense fallback={<Waiting />}>{screen(fetched)}</Suspense>

export const router = createBrowserRouter([
  {
    path: '/come-in',
    element: whole(() => import('../account/ComeInScreen.js').then(({ ComeInScreen }) => ComeInScreen)),
    errorElement: <Stumble />,
  },
  {
    path: '/pair',
    element: whole(() => import('../account/PairScreen.js').then(({ PairScreen }) => PairScreen)),
    errorElement: <Stumble />,
  },
  {
    element: <Gate />,
    errorElement: <Stumble />,
    children: [
      { path: '/', element: <FirstSite />, errorElement: <Stumble /> },
      {
        path: '/start',
        element: whole(() => import('../site/StartScreen.js').then(({ StartScreen }) => StartScreen)),
        errorElement: <Stumble />,
      },
      {
        path: '/account',
        element: whole(() => import('../account/AccountScreen.js').then(({ AccountScreen }) => AccountScreen)),
        errorElement: <Stumble />,
      },
      {
        path: '/sites/:siteId',
        element: <Shell />,
        errorElement: <Stumble />,
        children: [
          // What goes wrong on a screen leaves the frame standing, so that one can go elsewhere.
          {
            errorElement: <Stumble />,
            children: [
              { index: true, element: <Navigate to="windows" replace /> },
              { path: 'overview', element: screen(() => import('../site/OverviewScreen.js').then(({ OverviewScreen }) => OverviewScreen)) },
              { path: 'site', element: screen(() => import('../site/SiteScreen.js').then(({ SiteScreen }) => SiteScreen)) },
              { path: 'labels', element: screen(() => import('../site/LabelsScreen.js').then(({ LabelsScreen }) => LabelsScreen)) },
              { path: 'changes', element: screen(() => import('../site/AuditScreen.js').then(({ AuditScreen }) => AuditScreen)) },
              { path: 'unsent', element: screen(() => import('../site/UnsentScreen.js').then(({ UnsentScreen }) => UnsentScreen)) },
              { path: 'weather', element: screen(() => import('../weather/WeatherScreen.js').then(({ WeatherScreen }) => WeatherScreen)) },
              {
                path: 'weather/:stationId/import',
                element: screen(() => import('../weather/ImportScreen.js').then(({ ImportScreen }) => ImportScreen)),
              },
              { path: 'bloom', element: screen(() => import('../bloom/BloomScreen.js').then(({ BloomScreen }) => BloomScreen)) },
              {
                path: 'scouting',
                element: screen(() => import('../scouting/ScoutingScreen.js').then(({ ScoutingScreen }) => ScoutingScreen)),
              },
              {
                path: 'scouting/:watchId/count',
                element: screen(() => import('../scouting/CountScreen.js').then(({ CountScreen }) => CountScreen)),
              },
              { path: 'windows', element: screen(() => import('../windows/WindowsScreen.js').then(({ WindowsScreen }) => WindowsScreen)) },
              {
                path: 'treatments',
                element: screen(() => import('../treatments/TreatmentsScreen.js').then(({ TreatmentsScreen }) => TreatmentsScreen)),
              },
              {
                path: 'outcomes',
                element: screen(() => import('../outcomes/OutcomesScreen.js').then(({ OutcomesScreen }) => OutcomesScreen)),
              },
              {
                path: 'library',
                element: screen(() => import('../library/LibraryScreen.js').then(({ LibraryScreen }) => LibraryScreen)),
                children: [
                  {
                    errorElement: <Stumble inside />,
                    children: [
                      {
                        index: true,
                        element: screen(() => import('../library/LibraryScreen.js').then(({ LibraryStart }) => LibraryStart)),
                      },
                      {
                        path: 'suspects',
                        element: screen(() => import('../library/SuspectsScreen.js').then(({ SuspectsScreen }) => SuspectsScreen)),
                      },
                      { path: 'words', element: screen(() => import('../library/WordsPage.js').then(({ WordsPage }) => WordsPage)) },
                      { path: 'new', element: screen(() => import('../library/OwnOrganism.js').then(({ OwnOrganism }) => OwnOrganism)) },
                      { path: 'new-method', element: screen(() => import('../library/OwnMethod.js').then(({ OwnMethod }) => OwnMethod)) },
                      {
                        path: 'organisms/:organismId',
                        element: screen(() => import('../library/OrganismPage.js').then(({ OrganismPage }) => OrganismPage)),
                      },
                      {
                        path: 'organisms/:organismId/check',
                        element: screen(() => import('../library/LookAlikeCheck.js').then(({ LookAlikeCheck }) => LookAlikeCheck)),
                      },
                      {
                        path: 'organisms/:organismId/drill',
                        element: screen(() => import('../library/Drill.js').then(({ Drill }) => Drill)),
                      },
                      {
                        path: 'organisms/:organismId/bench',
                        element: screen(() => import('../library/ModelBench.js').then(({ ModelBench }) => ModelBench)),
                      },
                      {
                        path: 'methods/:methodId',
                        element: screen(() => import('../library/MethodPage.js').then(({ MethodPage }) => MethodPage)),
                      },
                      {
                        path: 'bloom-plants/:plantId',
                        element: screen(() => import('../library/BloomPlantPage.js').then(({ BloomPlantPage }) => BloomPlantPage)),
                      },
                    ],
                  },
                ],
              },
              { path: '*', element: <NotFound /> },
            ],
          },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
])
