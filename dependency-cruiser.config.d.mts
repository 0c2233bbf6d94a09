import type { ICruiseOptions, IForbiddenRuleType } from 'dependency-cruiser'

declare const config: { readonly forbidden: IForbiddenRuleType[]; readonly options: ICruiseOptions }
export default config
