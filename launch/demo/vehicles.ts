/** What is written of the demo's vehicles, by the names of the API; all invented. */
export const demoVehicles: Record<
  string,
  { fields: Record<string, unknown>; parts: [name: string, knowledge: string][] }
> = {
  'Ostrel 990 twin': {
    fields: {
      plate: 'OS 990',
      engine: '990 cm³ twin, four valves a cylinder',
      ignition: 'spark',
      induction: 'none',
      fuelSystem: 'port injection',
      drivenAxle: 'rear',
      tyres: '180/55 R17',
      tankLitres: 17,
      finalDrive: 2.63,
      gears: [
        { gear: '4th', ratio: 1.36 },
        { gear: '5th', ratio: 1.21 },
      ],
      factoryKw: 72,
    },
    parts: [
      ['road exhaust', 'known'],
      ['camshafts', 'believed'],
    ],
  },
  'Brindle 1.0 kit car, three-cylinder turbo': {
    fields: {
      engine: '1.0 three-cylinder, turbo',
      ignition: 'spark',
      induction: 'turbo',
      fuelSystem: 'port injection',
      injectors: 3,
      injectorFlowCcMin: 205,
      injectorRatedKpa: 300,
      pumpFlowLh: 78,
      pumpRatedKpa: 500,
      gearbox: '6-speed manual',
      drivenAxle: 'rear',
      tankLitres: 40,
      factoryKw: 92,
      factoryNm: 170,
    },
    parts: [
      ['larger charge cooler', 'known'],
      ['fuel pump', 'unknown'],
      ['clutch, 280 N·m', 'believed'],
    ],
  },
  'Tarrow Six hill-climb coupé': {
    fields: {
      plate: 'TS 66',
      engine: '2.0 six, two valves a cylinder',
      ignition: 'spark',
      induction: 'none',
      fuelSystem: 'port injection on throttle bodies',
      gearbox: '5-speed manual',
      drivenAxle: 'rear',
      tyres: '195/60 R15',
      tankLitres: 45,
      finalDrive: 3.9,
      massKg: 940,
      gears: [
        { gear: '1st', ratio: 3.45 },
        { gear: '2nd', ratio: 1.95 },
        { gear: '3rd', ratio: 1.36 },
        { gear: '4th', ratio: 1 },
      ],
      factoryKw: 98,
      factoryNm: 178,
      fuelling: {
        axes: {
          across: { channel: 'engineSpeed', breakpoints: [2000, 2500, 3000, 3500, 4000] },
          down: { channel: 'manifoldPressure', breakpoints: [40, 55, 70, 85] },
        },
        dealing: { by: 'corners' },
        delay: null,
        lambdaTarget: 1,
      },
      note: 'Warm oil to 70 °C before full load: the builder insists.',
    },
    parts: [
      ['camshaft, 288°', 'known'],
      ['pistons, 10.8 : 1', 'believed'],
      ['flywheel', 'unknown'],
    ],
  },
  'Hallam 2.2 diesel minibus': {
    fields: {
      plate: 'CL 22',
      engine: '2.2 four-cylinder diesel',
      ignition: 'compression',
      induction: 'turbo',
      gearbox: '6-speed manual',
      drivenAxle: 'all',
      tankLitres: 80,
      factoryKw: 96,
      factoryNm: 310,
    },
    parts: [['particle filter', 'known']],
  },
};
