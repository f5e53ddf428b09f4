import type { ComponentType } from 'react'
import { createBrowserRouter, matchRoutes, Navigate } from 'react-router'
import { FirstSite } from './FirstSite.js'
import { Gate } from './Gate.js'
import { later } from './later.js'
import { partLater } from './partLater.js'
import { ScreenMissing } from './ScreenMissing.js'
import { Shell } from './Shell.js'
import { NotFound, Stumble } from './Stumble.js'

/** A screen whose code is fetched when it is first opened, or beforehand by `fetchTheRest`. */
function screen(fetched: () => Promise<ComponentType>) {
  later(fetched)
  const Screen = partLater(() =>
    fetched().catch((cause: unknown) => {
      throw new ScreenMissing(cause)
    }),
  )
  return { element: <Screen />, handle: { fetched } }
}

export const router = createBrowserRouter([
  {
    path: '/come-in',
    ...screen(() => import('../account/ComeInScreen.js').then(({ ComeInScreen }) => ComeInScreen)),
    errorElement: <Stumble />,
  },
  {
    path: '/pair',
    ...screen(() => import('../account/PairScreen.js').then(({ PairScreen }) => PairScreen)),
    errorElement: <Stumble />,
  },
  {
    path: '/found',
    ...screen(() => import('../found/FoundScreen.js').then(({ FoundScreen }) => FoundScreen)),
    errorElement: <Stumble />,
  },
  {
    element: <Gate />,
    errorElement: <Stumble />,
    children: [
      { path: '/', element: <FirstSite />, errorElement: <Stumble /> },
      {
        path: '/start',
        ...screen(() => import('../site/StartScreen.js').then(({ StartScreen }) => StartScreen)),
        errorElement: <Stumble />,
      },
      {
        path: '/account',
        ...screen(() => import('../account/AccountScreen.js').then(({ AccountScreen }) => AccountScreen)),
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
              { index: true, element: <Navigate to="today" replace /> },
              { path: 'today', ...screen(() => import('../today/TodayScreen.js').then(({ TodayScreen }) => TodayScreen)) },
              { path: 'alerts', ...screen(() => import('../alerts/AlertsScreen.js').then(({ AlertsScreen }) => AlertsScreen)) },
              { path: 'inbox', ...screen(() => import('../alerts/InboxScreen.js').then(({ InboxScreen }) => InboxScreen)) },
              { path: 'overview', ...screen(() => import('../site/OverviewScreen.js').then(({ OverviewScreen }) => OverviewScreen)) },
              { path: 'site', ...screen(() => import('../site/SiteScreen.js').then(({ SiteScreen }) => SiteScreen)) },
              { path: 'labels', ...screen(() => import('../site/LabelsScreen.js').then(({ LabelsScreen }) => LabelsScreen)) },
              {
                path: 'found-board',
                ...screen(() => import('../site/FoundBoardScreen.js').then(({ FoundBoardScreen }) => FoundBoardScreen)),
              },
              { path: 'changes', ...screen(() => import('../site/AuditScreen.js').then(({ AuditScreen }) => AuditScreen)) },
              { path: 'unsent', ...screen(() => import('../site/UnsentScreen.js').then(({ UnsentScreen }) => UnsentScreen)) },
              { path: 'weather', ...screen(() => import('../weather/WeatherScreen.js').then(({ WeatherScreen }) => WeatherScreen)) },
              {
                path: 'weather/:stationId/import',
                ...screen(() => import('../weather/ImportScreen.js').then(({ ImportScreen }) => ImportScreen)),
              },
              { path: 'bloom', ...screen(() => import('../bloom/BloomScreen.js').then(({ BloomScreen }) => BloomScreen)) },
              {
                path: 'scouting',
                ...screen(() => import('../scouting/ScoutingScreen.js').then(({ ScoutingScreen }) => ScoutingScreen)),
              },
              {
                path: 'scouting/as-volunteers',
                ...screen(() => import('../helping/HelpPreviewScreen.js').then(({ HelpPreviewScreen }) => HelpPreviewScreen)),
              },
              { path: 'scouting/plots', ...screen(() => import('../plots/PlotsScreen.js').then(({ PlotsScreen }) => PlotsScreen)) },
              {
                path: 'scouting/:watchId/count',
                ...screen(() => import('../scouting/CountScreen.js').then(({ CountScreen }) => CountScreen)),
              },
              { path: 'windows', ...screen(() => import('../windows/WindowsScreen.js').then(({ WindowsScreen }) => WindowsScreen)) },
              {
                path: 'schedule',
                ...screen(() => import('../schedule/ScheduleScreen.js').then(({ ScheduleScreen }) => ScheduleScreen)),
              },
              { path: 'schedule/season', ...screen(() => import('../season/SeasonScreen.js').then(({ SeasonScreen }) => SeasonScreen)) },
              {
                path: 'schedule/prevention',
                ...screen(() => import('../prevention/PreventionScreen.js').then(({ PreventionScreen }) => PreventionScreen)),
              },
              {
                path: 'treatments',
                ...screen(() => import('../treatments/TreatmentsScreen.js').then(({ TreatmentsScreen }) => TreatmentsScreen)),
              },
              {
                path: 'treatments/season',
                ...screen(() => import('../treatments/SeasonRecordScreen.js').then(({ SeasonRecordScreen }) => SeasonRecordScreen)),
              },
              {
                path: 'treatments/:treatmentId/sheet',
                ...screen(() => import('../job/JobSheetScreen.js').then(({ JobSheetScreen }) => JobSheetScreen)),
              },
              {
                path: 'outcomes/trials/:trialId',
                ...screen(() => import('../trials/TrialScreen.js').then(({ TrialScreen }) => TrialScreen)),
              },
              {
                path: 'outcomes/years',
                ...screen(() => import('../outcomes/YearsScreen.js').then(({ YearsScreen }) => YearsScreen)),
              },
              {
                path: 'outcomes/forecasts',
                ...screen(() => import('../outcomes/SkillScreen.js').then(({ SkillScreen }) => SkillScreen)),
              },
              {
                path: 'outcomes/ahead',
                ...screen(() => import('../outcomes/AheadScreen.js').then(({ AheadScreen }) => AheadScreen)),
              },
              {
                path: 'outcomes/review',
                ...screen(() => import('../outcomes/ReviewScreen.js').then(({ ReviewScreen }) => ReviewScreen)),
              },
              {
                path: 'outcomes',
                ...screen(() => import('../outcomes/OutcomesScreen.js').then(({ OutcomesScreen }) => OutcomesScreen)),
              },
              {
                path: 'library',
                ...screen(() => import('../library/LibraryScreen.js').then(({ LibraryScreen }) => LibraryScreen)),
                children: [
                  {
                    errorElement: <Stumble inside />,
                    children: [
                      {
                        index: true,
                        ...screen(() => import('../library/LibraryScreen.js').then(({ LibraryStart }) => LibraryStart)),
                      },
                      {
                        path: 'suspects',
                        ...screen(() => import('../library/SuspectsScreen.js').then(({ SuspectsScreen }) => SuspectsScreen)),
                      },
                      { path: 'words', ...screen(() => import('../library/WordsPage.js').then(({ WordsPage }) => WordsPage)) },
                      { path: 'new', ...screen(() => import('../library/OwnOrganism.js').then(({ OwnOrganism }) => OwnOrganism)) },
                      { path: 'new-method', ...screen(() => import('../library/OwnMethod.js').then(({ OwnMethod }) => OwnMethod)) },
                      {
                        path: 'organisms/:organismId',
                        ...screen(() => import('../library/OrganismPage.js').then(({ OrganismPage }) => OrganismPage)),
                      },
                      {
                        path: 'organisms/:organismId/check',
                        ...screen(() => import('../library/LookAlikeCheck.js').then(({ LookAlikeCheck }) => LookAlikeCheck)),
                      },
                      {
                        path: 'organisms/:organismId/drill',
                        ...screen(() => import('../library/Drill.js').then(({ Drill }) => Drill)),
                      },
                      {
                        path: 'organisms/:organismId/bench',
                        ...screen(() => import('../library/ModelBench.js').then(({ ModelBench }) => ModelBench)),
                      },
                      {
                        path: 'methods/:methodId',
                        ...screen(() => import('../library/MethodPage.js').then(({ MethodPage }) => MethodPage)),
                      },
                      {
                        path: 'bloom-plants/:plantId',
                        ...screen(() => import('../library/BloomPlantPage.js').then(({ BloomPlantPage }) => BloomPlantPage)),
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

// The code of the screen that is asked for comes while its frame is made, not after it.
for (const { route } of matchRoutes(router.routes, location.pathname) ?? [])
  void (route.handle as { fetched: () => Promise<unknown> } | undefined)?.fetched().catch(() => undefined)
