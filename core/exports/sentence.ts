import type { DeliveryPlan } from './plan'
import { isInvented } from './reframe'

/**
 * What a framing comes to, in one sentence. *Every pixel is real* is said only where `isInvented` is false of the
 * samples that are cut, and only of a plan that can be rendered.
 */
export function framingSentence({ destination, scale, fault }: DeliveryPlan, clipName: string): string {
  if (fault) return `${clipName} cannot go out as it is.`
  return isInvented(scale)
    ? `This window invents pixels: each real one is drawn ${scale.toFixed(2)} times as large.`
    : `${destination.name} from ${clipName}: every pixel is real.`
}
