import type { ButtonHTMLAttributes } from 'react'

const LOOKS = {
  primary: 'bg-accent text-accent-ink border-accent hover:brightness-110',
  plain: 'bg-sheet text-ink border-rule hover:border-ink',
  quiet: 'bg-transparent text-ink border-transparent underline decoration-rule underline-offset-4 hover:decoration-ink',
  danger: 'bg-sheet text-stop border-stop hover:bg-wash',
} as const

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: keyof typeof LOOKS
}

/** One button. The primary one of a station is what `n` presses. */
export function Button({ look = 'plain', className = '', type = 'button', ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      data-primary={look === 'primary' ? '' : undefined}
      className={`inline-flex min-h-9 items-center justify-center gap-2 rounded-box border px-3.5 py-1 font-semibold disabled:cursor-not-allowed disabled:opacity-50 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  )
}
