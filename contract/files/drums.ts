/** The drums and hubs that a dyno can have beside a single one, and the channels of their load cells; core/dyno/drums.ts says how they are read. */
export const drumPlaces = [
  'left',
  'right',
  'front',
  'rear',
  'frontLeft',
  'frontRight',
  'rearLeft',
  'rearRight',
] as const;

export const torqueChannels = [
  'absorberTorque',
  'absorberTorqueLeft',
  'absorberTorqueRight',
  'absorberTorqueFront',
  'absorberTorqueRear',
  'absorberTorqueFrontLeft',
  'absorberTorqueFrontRight',
  'absorberTorqueRearLeft',
  'absorberTorqueRearRight',
] as const;
