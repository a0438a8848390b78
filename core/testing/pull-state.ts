/** The state of drum and engine at one moment. */
export interface PullState {
  timeS: number;
  phase: 'lead-in' | 'stab' | 'back' | 'feather' | 'pull' | 'coast';
  speedRadS: number;
  engineRpm: number;
  /** Torque that enters the drum, and that the absorber takes out. */
  drumTorqueNm: number;
  absorberNm: number;
  /** 0 to 1. */
  openness: number;
  /** Drum speed reading's swing from the driveline, rad/s. */
  swingRadS: number;
  /** A fault changes the torque at this moment. */
  disturbed: boolean;
}
