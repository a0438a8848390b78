/** Where one goes outside of a job. */
export const places = [
  { to: '/today', name: 'Today' },
  { to: '/jobs', name: 'Jobs' },
  { to: '/vehicles', name: 'Vehicles' },
  { to: '/devices', name: 'Devices' },
  { to: '/equipment', name: 'Equipment' },
  { to: '/prices', name: 'Prices' },
  { to: '/people', name: 'People' },
  { to: '/drive', name: 'Driver’s view' },
] as const;
