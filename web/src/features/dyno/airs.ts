/** The airs figures of pulls may be in. */
export const AIRS = [
  { value: 'as_planned', label: "The plan's air" },
  { value: 'sae_j1349', label: 'SAE J1349' },
  { value: 'sae_j607', label: 'SAE J607' },
  { value: 'iso_1585', label: 'ISO 1585' },
] as const

export type AirWord = (typeof AIRS)[number]['value']

/** What a dyno may have written its torque in. */
export const STATED = [
  { value: '', label: "not corrected, the plan's air" },
  { value: 'as_measured', label: 'not corrected, air of its own day' },
  { value: 'sae_j1349', label: 'corrected to SAE J1349' },
  { value: 'sae_j607', label: 'corrected to SAE J607' },
  { value: 'iso_1585', label: 'corrected to ISO 1585' },
] as const
