import { object, string } from 'yup'

export const bagOrder = object({
  deliverableId: string().uuid().required('Choose a deliverable.'),
  volumeId: string().uuid().required('Choose the volume for the bag.'),
}).noUnknown()

export interface BagView {
  readonly id: string
  readonly title: string
  readonly volumeName: string
  readonly site: string
  readonly path: string
  readonly fileCount: number
  readonly sizeBytes: number
  readonly writtenAt: string
  readonly verifiedAt: string | null
}
