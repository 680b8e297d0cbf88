export { type Family, familySchema, type Service, services } from './family'
export { type LicenceKind, licenceKinds } from './licences'
export { type FamilyPolicy, policySchema } from './policy'
export { type Programme, programmeSchema } from './programme'
