import type { LucideIcon } from 'lucide-react'
import type { ButtonHTMLAttributes } from 'react'
import { Button } from './Button'
import { Hint } from '../layers/Hint'

interface IconButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly icon: LucideIcon
  /** What it does to what, for those who do not see the row it stands in. */
  readonly label: string
  /** What it does, for whoever rests on it. */
  readonly hint?: string
}

/** A small button in a row, drawn as a sign. */
export function IconButton({ icon: Icon, label, hint, className = '', ...rest }: IconButtonProps) {
  const button = (
    <Button look="quiet" className={`!min-h-8 !px-1.5 !py-0 ${className}`} aria-label={label} {...rest}>
      <Icon className="size-4" aria-hidden />
    </Button>
  )
  return hint === undefined ? button : <Hint words={hint}>{button}</Hint>
}
