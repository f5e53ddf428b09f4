import { createBrowserRouter, Navigate } from 'react-router'
import { ImportScreen } from '../weather/ImportScreen.js'
import { BloomScreen } from '../bloom/BloomScreen.js'
import { BloomPlantPage } from '../library/BloomPlantPage.js'
import { Drill } from '../library/Drill.js'
import { LibraryScreen, LibraryStart } from '../library/LibraryScreen.js'
import { LookAlikeCheck } from '../library/LookAlikeCheck.js'
import { MethodPage } from '../library/MethodPage.js'
import { ModelBench } from '../library/ModelBench.js'
import { OrganismPage } from '../library/OrganismPage.js'
import { OwnMethod } from '../library/OwnMethod.js'
import { OwnOrganism } from '../library/OwnOrganism.js'
import { SuspectsScreen } from '../library/SuspectsScreen.js'
import { OutcomesScreen } from '../outcomes/OutcomesScreen.js'
import { ScoutingScreen } from '../scouting/ScoutingScreen.js'
import { CountScreen } from '../scouting/CountScreen.js'
import { SiteScreen } from '../site/SiteScreen.js'
import { StartScreen } from '../site/StartScreen.js'
import { TreatmentsScreen } from '../treatments/TreatmentsScreen.js'
import { WeatherScreen } from '../weather/WeatherScreen.js'
import { WindowsScreen } from '../windows/WindowsScreen.js'
import { FirstSite } from './FirstSite.js'
import { Shell } from './Shell.js'
import { NotFound, Stumble } from './Stumble.js'

export const router = createBrowserRouter([
  { path: '/', element: <FirstSite />, errorElement: <Stumble /> },
  { path: '/start', element: <StartScreen />, errorElement: <Stumble /> },
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
          { path: 'site', element: <SiteScreen /> },
          { path: 'weather', element: <WeatherScreen /> },
          { path: 'weather/:stationId/import', element: <ImportScreen /> },
          { path: 'bloom', element: <BloomScreen /> },
          { path: 'scouting', element: <ScoutingScreen /> },
          { path: 'scouting/:watchId/count', element: <CountScreen /> },
          { path: 'windows', element: <WindowsScreen /> },
          { path: 'treatments', element: <TreatmentsScreen /> },
          { path: 'outcomes', element: <OutcomesScreen /> },
          {
            path: 'library',
            element: <LibraryScreen />,
            children: [
              {
                errorElement: <Stumble inside />,
                children: [
                  { index: true, element: <LibraryStart /> },
                  { path: 'suspects', element: <SuspectsScreen /> },
                  { path: 'new', element: <OwnOrganism /> },
                  { path: 'new-method', element: <OwnMethod /> },
                  { path: 'organisms/:organismId', element: <OrganismPage /> },
                  { path: 'organisms/:organismId/check', element: <LookAlikeCheck /> },
                  { path: 'organisms/:organismId/drill', element: <Drill /> },
                  { path: 'organisms/:organismId/bench', element: <ModelBench /> },
                  { path: 'methods/:methodId', element: <MethodPage /> },
                  { path: 'bloom-plants/:plantId', element: <BloomPlantPage /> },
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
])
