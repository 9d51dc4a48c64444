import { useUnits } from './Units.tsx';

/** A sentence of the core or the server, for where no page writes it: its quantities as the maker writes them. */
export const Said = ({ of }: { of: string }) => useUnits().said(of);
