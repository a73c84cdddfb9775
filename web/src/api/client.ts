import createClient from 'openapi-fetch'
import { useUnits } from '@/shared/composables/useUnits'
import type { components, paths } from './schema'

export const api = createClient<paths>({
  baseUrl: '',
  fetch: (request) => globalThis.fetch(request),
})

/** Amounts inside the server's sentences come in this cook's own units; what a plan leaves open of
 * its kitchen is that of the kept one. */
api.use({
  onRequest({ request }) {
    const { kitchen, degrees } = useUnits()
    request.headers.set('Kettle-Units', `${kitchen.value} ${degrees.value}`)
    if (request.method === 'POST') request.headers.set('Kettle-Kitchen', 'kept')
  },
})

type Schemas = components['schemas']
export type Glaze = Schemas['GlazePublic']
export type Stage = Schemas['LinkPublic']
export type Choices = Schemas['ChoicesPublic']
export type Cut = Schemas['CutPublic']
export type Live = Schemas['LivePublic']
export type LiveList = Schemas['LiveListPublic']
export type Supper = Schemas['SupperPublic']
export type SideMove = Schemas['SideMoveCreate']
export type Step = Schemas['StepPublic']
export type EventBody = Schemas['EventCreate']
export type Leaving = Schemas['ElsewhereCreate']
export type Outcome = Schemas['OutcomeCreate']
export type Cook = Schemas['CookPublic']
export type CookSummary = Schemas['CookSummary']
export type Fault = Schemas['FaultPublic']
export type Problem = Schemas['Problem']

export const OFFLINE: Problem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  detail: 'The kettle does not answer. What you entered is kept here; I keep trying.',
  errors: [],
}

/** The data of an answer; a problem is thrown, so that a query keeps what it had. */
export async function fetched<T>(request: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  const { data, problem } = await ask(() => request)
  if (problem) throw problem
  return data as T
}

/** Data or a problem, whatever goes wrong on the way. */
export async function ask<T>(
  request: () => Promise<{ data?: T; error?: unknown }>,
): Promise<{ data?: T; problem?: Problem }> {
  try {
    const { data, error } = await request()
    if (error !== undefined)
      return { problem: (typeof error === 'object' && error ? error : OFFLINE) as Problem }
    return { data }
  } catch {
    return { problem: OFFLINE }
  }
}

export type Explorer = Schemas['ExplorerPublic']
export type Advice = Schemas['AdvicePublic']
export type Setting = Schemas['SettingPublic']
export type Analysis = Schemas['AnalysisPublic']
export type ReadLine = Schemas['LinePublic']
export type KeptSauce = Schemas['SauceKept']
export type SauceDraft = Schemas['SauceCreate']
export type Ledger = Schemas['LedgerPublic']
export type Move = Schemas['MoveDocument']
export type Scaled = Schemas['ScaledPublic']
export type ScaleBody = Schemas['ScaleCreate']
export type Variant = Schemas['VariantPublic']
export type OwnIngredient = Schemas['IngredientDocument']
export type Door = Schemas['SessionPublic']
export type Kitchen = Schemas['KitchenPublic']
export type Appliance = Schemas['AppliancePublic']
export type ApplianceBody = Schemas['ApplianceCreate']
export type KitchenSettings = Schemas['SettingsDocument']
export type Calibrated = Schemas['CalibratedPublic']
export type Observation = Schemas['ObservationPublic']
export type Lessons = Schemas['LessonsPublic']
export type ObservationBody = Schemas['ObservationCreate']
export type Fit = Schemas['FitPublic']
export type Effect = Schemas['EffectPublic']
export type Chain = Schemas['ChainDocument']
export type Sauce = NonNullable<Chain['layers']>[number]['sauce']
export type Figures = Chain['kitchen']
export type ChainFire = Schemas['ChainFirePublic']
export type ChainForecast = Schemas['ChainForecastPublic']
export type ChainStage = Chain['stages'][number]
export type ChainHeat = Schemas['ChainHeatPublic']
export type ChainWatchOut = Schemas['ChainWatchOutPublic']
export type Template = Schemas['TemplatePublic']
export type Answers = Schemas['AnswersCreate']
export type Beginning = Schemas['BeginningPublic']
export type HeatTimes = Schemas['HeatTimesPublic']
export type Assumed = Schemas['AssumedPublic']
export type Schedule = Schemas['SchedulePublic']
export type Meal = Schemas['MealDocument']
export type KeptMeal = Schemas['MealPublic']
export type MealChoices = Schemas['MealChoicesPublic']
export type MealRepair = Schemas['MealRepairPublic']
