const LAYERS = '[role="dialog"], [role="alertdialog"], [role="menu"], [role="listbox"][data-state="open"]'

/** Whether something lies over the page in which letters, digits and arrows have a meaning of their own. */
export const isLayerOpen = (): boolean => document.querySelector(LAYERS) !== null
