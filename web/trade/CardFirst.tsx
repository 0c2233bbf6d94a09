import { Link } from 'react-router'

/** The first step of every station that works on clips. */
export const CardFirst = ({ productionId }: { productionId: string }) => (
  <Link to={`/p/${productionId}/cards`} className="font-semibold text-accent underline underline-offset-4">
    Scan a card first
  </Link>
)
