export function postgresBin(): string | undefined
