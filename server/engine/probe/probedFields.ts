import type { FieldOrder } from '../../../core/media/facts'
import type { Probed, ProbedStream } from './probed'

const FIELD_ORDERS: Record<string, FieldOrder> = {
  progressive: 'progressive',
  tt: 'top first',
  bb: 'bottom first',
  // Lines of both fields in one frame: the names only repeat numbers 9 and 14 of the file, of which 9 is shown with the
  // top field first. Source: RFC 9559, FieldOrder; QuickTime File Format, `fiel`.
  tb: 'top first',
  bt: 'bottom first',
}
/**
 * The field that is shown first is the second letter here, the one that is coded first the first. Source: SMPTE ST
 * 377-1.
 */
const MXF_FIELD_ORDERS: Record<string, FieldOrder> = { ...FIELD_ORDERS, tb: 'bottom first', bt: 'top first' }

export const fieldOrderOf = (
  { field_order: order = '' }: ProbedStream,
  format: NonNullable<Probed['format']>,
): FieldOrder | undefined => (format.format_name === 'mxf' ? MXF_FIELD_ORDERS : FIELD_ORDERS)[order]
