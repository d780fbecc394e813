import { computed, ref, type ComputedRef } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, unwrap } from '@/api/client'
import { grantOf } from '@/pages/access/grants'
import { useDraft, useModel } from './model'
import { kindOf, definedName } from './packages'
import { useSession } from './session'

/** What there is already of the way from nothing to a service that is called. */
export interface GuideFacts {
  packages: number
  /** The first object of one's own, or undefined. */
  object?: string
  isObjectLive: boolean
  records: number
  /** The first service of one's own as name and version, or undefined. */
  service?: string
  isServiceLive: boolean
  hasClient: boolean
  calls: number
}

export interface GuideStep {
  text: string
  to: string
}

/** All steps, and how many are done; the first that is not is the one to take. */
export function guideSteps(facts: GuideFacts): { steps: GuideStep[]; done: number } {
  const object = facts.object ?? ''
  const all: [boolean, GuideStep][] = [
    [facts.packages > 0, { text: 'Make a package: the drawer for what you define.', to: '/packages' }],
    [!!object, { text: 'Define the object you keep records of, and give it its fields.', to: '/model' }],
    [
      facts.isObjectLive,
      { text: 'Release it: then it has a place for records, and a form.', to: '/releases' },
    ],
    [
      facts.records > 0,
      { text: 'Enter the first record, or bring records in from a file.', to: `/data/${object}` },
    ],
    [!!facts.service, { text: 'Make a service that shows the object to outside systems.', to: '/services' }],
    [facts.isServiceLive, { text: 'Release the service: then it answers.', to: '/releases' }],
    [
      facts.hasClient,
      { text: 'Make a client for it on its page, under Callers.', to: `/services/${facts.service ?? ''}` },
    ],
    [
      facts.calls > 0,
      { text: 'Try the service as that client, under Try a call.', to: `/services/${facts.service ?? ''}` },
    ],
  ]
  const first = all.findIndex(([isDone]) => !isDone)
  return { steps: all.map(([, step]) => step), done: first < 0 ? all.length : first }
}

/** What happens outside of the console, such as a call, is heard of a moment later. */
const NOW_AND_THEN = 3_000
const KEY = 'sandpiper.guide'
const on = ref(typeof localStorage !== 'undefined' && localStorage.getItem(KEY) === 'on')

/** The guide, which is begun and left whenever somebody likes. */
export function useGuide() {
  function set(now: boolean) {
    on.value = now
    localStorage.setItem(KEY, now ? 'on' : 'off')
  }
  return { on, begin: () => set(true), leave: () => set(false) }
}

/** How far somebody has come; asked only while the guide is on. */
export function useGuideFacts(): ComputedRef<GuideFacts | undefined> {
  const { may } = useSession()
  const asks = computed(() => on.value && may('design'))
  const { data: draft } = useDraft()
  const { objects } = useModel('LIVE')
  const services = useQuery({
    queryKey: ['services'],
    queryFn: () => unwrap(api.GET('/manage/v1/model/services')),
    enabled: asks,
  })
  const status = useQuery({
    queryKey: ['status'],
    queryFn: () => unwrap(api.GET('/manage/v1/status')),
    enabled: asks,
    refetchInterval: NOW_AND_THEN,
  })
  const clients = useQuery({
    queryKey: ['clients'],
    queryFn: () => unwrap(api.GET('/manage/v1/clients')),
    enabled: computed(() => asks.value && may('access')),
  })
  const traffic = useQuery({
    queryKey: ['traffic', 'guide'],
    queryFn: () => unwrap(api.GET('/manage/v1/traffic', { params: { query: { days: 30 } } })),
    enabled: asks,
    refetchInterval: NOW_AND_THEN,
  })
  return computed(() => {
    if (!draft.value) return undefined
    const open = draft.value.files.filter((one) => !draft.value!.sealed.includes(one.path.split('/')[0]))
    const names = open
      .filter((one) => kindOf(one.path) === 'object')
      .map(definedName)
      .filter((name): name is string => !!name)
    const inUse = (name: string) => status.data.value?.objects.find((one) => one.name === name)?.inUse ?? 0
    const isLive = (name: string) => objects.value.some((one) => one.name === name)
    // Whichever has come furthest leads on.
    const name = names.find((one) => inUse(one) > 0) ?? names.find(isLive) ?? names[0]
    const file = open.find((one) => kindOf(one.path) === 'service')
    const service = file && definedName(file)
    const live = services.data.value?.find((one) => one.name === service)
    return {
      packages: open.filter((one) => kindOf(one.path) === 'package').length,
      object: name,
      isObjectLive: !!name && isLive(name),
      records: name ? inUse(name) : 0,
      service: service && `${service}-v${live?.version ?? 1}`,
      isServiceLive: !!live,
      hasClient: (clients.data.value ?? []).some((one) =>
        one.grants.some((grant) => ['*', service].includes(grantOf(grant).service)),
      ),
      calls: (traffic.data.value?.calls ?? [])
        .filter((one) => one.service === service)
        .reduce((sum, one) => sum + one.calls, 0),
    }
  })
}
