/** Least cover over what is buried where nothing else is over it, Table 300.5 (2023: 300.5(A)), inches. */
type Buried = 'cable' | 'raceway';

const COVER: Record<Buried, { inches: number; working: string }> = {
  cable: { inches: 24, working: 'cable laid in the earth' },
  raceway: { inches: 18, working: 'nonmetallic raceway; rigid metal conduit 6"' },
};
/** A circuit of 120 V and 20 A or less with GFCI ahead of the burial. */
const SMALL_PROTECTED = { inches: 12, working: '120 V, 20 A or less, GFCI ahead of the burial' };

/** @param smallProtected 120 V, not multiwire, 20 A or less, with GFCI ahead of where it goes into the earth */
export const leastCover = (what: Buried, smallProtected: boolean): { inches: number; working: string } =>
  smallProtected ? SMALL_PROTECTED : COVER[what];
