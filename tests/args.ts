/** Arguments of a program as they are typed: `args('-v error -y')` is three of them. */
export const args = (text: string): string[] => text.split(' ')
