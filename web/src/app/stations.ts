export interface Station {
  key: string
  name: string
  about: string
  path: string
}

/** The seven stations, in the order of the work. */
export const stations: Station[] = [
  { key: 'blend', name: 'Blend', about: 'ratio', path: '/blend' },
  { key: 'coat', name: 'Coat', about: 'size + layers', path: '/coat' },
  { key: 'day', name: 'Day', about: 'when', path: '/day' },
  { key: 'fire', name: 'Fire', about: 'cook log', path: '/fire' },
  { key: 'table', name: 'Table', about: 'blind taste', path: '/table' },
  { key: 'verdict', name: 'Verdict', about: 'what won', path: '/verdict' },
  { key: 'shelf', name: 'Shelf', about: 'jars', path: '/shelf' },
]
