/** Time zones to choose from, as this browser knows them; UTC, which no list names, first. */
export const timeZones = (): string[] => ['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')]
